import { join, relative } from "node:path";
import { globSync } from "tinyglobby";
import ts from "typescript";

/** One call of `store.rows<T>(sql, …)` in the store: what it asks, and what it says that it gets. */
export interface Statement {
  where: string;
  /** With its parameters numbered, as PostgreSQL takes it; undefined where it is not known before it runs. */
  sql: string | undefined;
  /** The declared columns; undefined where none are declared. */
  declared: Columns | undefined;
}

/** Columns by their names: the kind of each one's type, and whether it may be null. */
export type Columns = ReadonlyMap<string, { kind: string; isNullable: boolean }>;

/**
 * What stands for a part of a statement that is only known when it runs, by its text: any condition and any order will
 * do to have the columns described.
 */
const STAND_INS: Readonly<Record<string, string>> = {
  where: "true",
  joins: "",
  order: "1",
  sorting: "",
  orderOf: "1",
  limitOf: "LIMIT 1",
  badHealth: "true",
  rank: "1",
};

/** The sources of a folder, but its tests and migrations, with their types. */
export function programOf(folder: string): ts.Program {
  const files = globSync(["**/*.ts"], { cwd: folder, ignore: ["**/*.test.ts", "**/migrations/**"] });
  return ts.createProgram(
    files.map((file) => join(folder, file)),
    {
      strict: true,
      module: ts.ModuleKind.ESNext,
      moduleResolution: ts.ModuleResolutionKind.Bundler,
      allowImportingTsExtensions: true,
      noEmit: true,
      target: ts.ScriptTarget.ES2022,
      skipLibCheck: true,
    },
  );
}

/** The interfaces that a file exports, each with its columns. */
export function rowTypesIn(program: ts.Program, file: string): Map<string, Columns> {
  const checker = program.getTypeChecker();
  const found = new Map<string, Columns>();
  for (const node of program.getSourceFile(file)!.statements)
    if (ts.isInterfaceDeclaration(node))
      found.set(node.name.text, columnsOf(checker.getTypeAtLocation(node), checker, node));
  return found;
}

/** Reads all statements of the store's sources, with the types that they declare. */
export function statementsIn(program: ts.Program): Statement[] {
  const checker = program.getTypeChecker();
  const found: Statement[] = [];
  for (const file of program.getRootFileNames()) {
    const source = program.getSourceFile(file)!;
    const visit = (node: ts.Node): void => {
      if (ts.isCallExpression(node) && /(?:^|\.)store\.rows$|^rows$/.test(node.expression.getText())) {
        const line = source.getLineAndCharacterOfPosition(node.getStart()).line + 1;
        const [type] = node.typeArguments ?? [];
        const sql = textOf(node.arguments[0]!, checker);
        found.push({
          where: `${relative(process.cwd(), source.fileName)}:${line}`,
          sql: sql === undefined ? undefined : numbered(sql),
          declared: type && columnsOf(checker.getTypeFromTypeNode(type), checker, node),
        });
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return found;
}

type Names = ReadonlyMap<string, string>;
const NOTHING: Names = new Map();

// The text that an expression comes to; undefined where that is only known when it runs. Of two choices, the first.
function textOf(node: ts.Expression, checker: ts.TypeChecker, names = NOTHING): string | undefined {
  const text = (of: ts.Expression): string | undefined => textOf(of, checker, names);
  if (ts.isStringLiteralLike(node)) return node.text;
  if (ts.isNumericLiteral(node)) return node.text.replaceAll("_", "");
  if (ts.isParenthesizedExpression(node) || ts.isAsExpression(node)) return text(node.expression);
  if (ts.isTemplateExpression(node)) {
    const parts = node.templateSpans.map(({ expression, literal }) => {
      const part = text(expression);
      return part === undefined ? undefined : part + literal.text;
    });
    return parts.includes(undefined) ? undefined : node.head.text + parts.join("");
  }
  if (ts.isConditionalExpression(node)) return text(node.whenTrue) ?? text(node.whenFalse);
  if (ts.isIdentifier(node) && names.has(node.text)) return names.get(node.text);
  if (ts.isIdentifier(node) && node.text in STAND_INS) return STAND_INS[node.text];
  if (checker.getTypeAtLocation(node).flags & ts.TypeFlags.NumberLike) return "1";
  if (ts.isElementAccessExpression(node)) return firstOf(node.expression, checker, names);
  if (ts.isIdentifier(node) || ts.isPropertyAccessExpression(node)) {
    const declared = initializerOf(node, checker) ?? propertyOf(node, checker);
    return declared && text(declared);
  }
  if (ts.isCallExpression(node)) return calledText(node, checker, names);
  return undefined;
}

// A property of an object that is declared as a record.
function propertyOf(node: ts.Expression, checker: ts.TypeChecker): ts.Expression | undefined {
  if (!ts.isPropertyAccessExpression(node)) return undefined;
  const object = initializerOf(node.expression, checker);
  const literal = object && bare(object);
  if (!literal || !ts.isObjectLiteralExpression(literal)) return undefined;
  const found = literal.properties.find((one) => one.name?.getText() === node.name.text);
  return found && ts.isPropertyAssignment(found) ? found.initializer : undefined;
}

// Any value of an object or list: a statement has the same columns whichever is taken.
function firstOf(node: ts.Expression, checker: ts.TypeChecker, names: Names): string | undefined {
  const object = bare(initializerOf(node, checker) ?? node);
  if (!ts.isObjectLiteralExpression(object)) return undefined;
  const [first] = object.properties;
  return first && ts.isPropertyAssignment(first) ? textOf(first.initializer, checker, names) : undefined;
}

// Calls within statements: lists that are joined, and functions of ours that give a piece of SQL.
function calledText(node: ts.CallExpression, checker: ts.TypeChecker, names: Names): string | undefined {
  const { expression, arguments: given } = node;
  if (ts.isPropertyAccessExpression(expression)) {
    const method = expression.name.text;
    if (method === "join") {
      const items = listOf(expression.expression, checker, names);
      return items?.join(given[0] ? textOf(given[0], checker, names) : ",");
    }
    if (method === "replace") return textOf(expression.expression, checker, names);
  }
  if (expression.getText() in STAND_INS) return STAND_INS[expression.getText()];
  const body = bodyOf(declarationOf(expression, checker));
  return body && textOf(body.returned, checker, bound(body.parameters, given, checker, names));
}

function listOf(node: ts.Expression, checker: ts.TypeChecker, names: Names): string[] | undefined {
  const list = bare(initializerOf(node, checker) ?? node);
  if (ts.isArrayLiteralExpression(list))
    return known(list.elements.map((one) => textOf(one, checker, names)));
  if (!ts.isCallExpression(list) || !ts.isPropertyAccessExpression(list.expression)) return undefined;
  if (list.expression.name.text === "slice")
    return listOf(list.expression.expression, checker, names)?.slice(1);
  const items =
    list.expression.name.text === "map" ? listOf(list.expression.expression, checker, names) : undefined;
  const [mapped] = list.arguments;
  const body =
    mapped && (ts.isArrowFunction(mapped) ? bodyOf(mapped) : bodyOf(declarationOf(mapped, checker)));
  const [parameter] = body?.parameters ?? [];
  if (!items || !body || !parameter) return undefined;
  return known(
    items.map((item) =>
      textOf(body.returned, checker, new Map([...names, [parameter.name.getText(), item]])),
    ),
  );
}

function known(texts: (string | undefined)[]): string[] | undefined {
  return texts.includes(undefined) ? undefined : (texts as string[]);
}

function bound(
  parameters: readonly ts.ParameterDeclaration[],
  given: readonly ts.Expression[],
  checker: ts.TypeChecker,
  names: Names,
): Names {
  const texts = parameters.map((one, at) => [
    one.name.getText(),
    given[at] && textOf(given[at], checker, names),
  ]);
  return new Map(texts.filter((one): one is [string, string] => one[1] !== undefined));
}

function bodyOf(
  declaration: ts.Node | undefined,
): { parameters: readonly ts.ParameterDeclaration[]; returned: ts.Expression } | undefined {
  const made = declaration && ts.isVariableDeclaration(declaration) ? declaration.initializer : declaration;
  if (!made || !(ts.isFunctionDeclaration(made) || ts.isArrowFunction(made)) || !made.body) return undefined;
  const returned = ts.isBlock(made.body)
    ? made.body.statements.find(ts.isReturnStatement)?.expression
    : made.body;
  return returned && { parameters: made.parameters, returned };
}

function bare(node: ts.Expression): ts.Expression {
  return ts.isAsExpression(node) || ts.isParenthesizedExpression(node) ? bare(node.expression) : node;
}

function declarationOf(node: ts.Expression, checker: ts.TypeChecker): ts.Declaration | undefined {
  const symbol = checker.getSymbolAtLocation(node);
  const target = symbol && (symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol);
  return target?.valueDeclaration;
}

function initializerOf(node: ts.Expression, checker: ts.TypeChecker): ts.Expression | undefined {
  const declaration = declarationOf(node, checker);
  return declaration && (ts.isVariableDeclaration(declaration) || ts.isPropertyAssignment(declaration))
    ? declaration.initializer
    : undefined;
}

/** Named parameters as PostgreSQL numbers them; what is cast (`::`) stays. */
function numbered(sql: string): string {
  const names: string[] = [];
  return sql.replace(/\$([a-z_]\w*)/gi, (_, name: string) => {
    if (!names.includes(name)) names.push(name);
    return `$${names.indexOf(name) + 1}`;
  });
}

function columnsOf(type: ts.Type, checker: ts.TypeChecker, at: ts.Node): Columns {
  return new Map(
    checker.getPropertiesOfType(type).map((property) => {
      const declared = checker.getTypeOfSymbolAtLocation(property, at);
      const parts = declared.isUnion() ? declared.types : [declared];
      const isNullable = parts.some(
        ({ flags }) => flags & (ts.TypeFlags.Null | ts.TypeFlags.Any | ts.TypeFlags.Unknown),
      );
      return [property.name, { kind: kindOf(declared, checker), isNullable }];
    }),
  );
}

/** The kind of a column's declared type: `string`, `number`, `boolean`, `Date`, lists of them, or `json`. */
function kindOf(type: ts.Type, checker: ts.TypeChecker): string {
  const parts = (type.isUnion() ? type.types : [type]).filter(
    (part) => !(part.flags & (ts.TypeFlags.Null | ts.TypeFlags.Undefined)),
  );
  const kinds = new Set(
    parts.map((part) => {
      if (part.flags & ts.TypeFlags.StringLike) return "string";
      if (part.flags & ts.TypeFlags.NumberLike) return "number";
      if (part.flags & ts.TypeFlags.BooleanLike) return "boolean";
      if (part.isIntersection() && part.types.some((one) => one.flags & ts.TypeFlags.String)) return "string";
      if (part.symbol?.name === "Date") return "Date";
      if (/^(?:Buffer|Uint8Array)/.test(part.symbol?.name ?? "")) return "bytes";
      if (checker.isArrayType(part) || checker.isTupleType(part)) {
        const [item] = checker.getTypeArguments(part as ts.TypeReference);
        const kind = item ? kindOf(item, checker) : "json";
        return kind === "string" || kind === "number" ? `${kind}[]` : "json";
      }
      return "json";
    }),
  );
  return kinds.size === 1 ? [...kinds][0]! : "json";
}
