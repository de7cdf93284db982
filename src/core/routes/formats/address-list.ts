import Papa from "papaparse";
import { looksLikeAddress } from "../../address/repair/repair.ts";

/** One line of a list of addresses: what stands there, and how it is read. */
export interface ListedAddress {
  line: number;
  pasted: string;
  address: string;
  /** The name that the short link is to have, empty when none is written. */
  slug: string;
  title: string;
}

/** How a list was read: its cells stand between this sign, or its words between spaces. */
export interface AddressList {
  sign: "," | ";" | "\t" | " ";
  items: ListedAddress[];
}

const HEADS: Readonly<Record<"address" | "slug" | "title", RegExp>> = {
  address: /^(?:destination|address|url|link|long(?: ?(?:url|link|address))?|target)$/i,
  slug: /^(?:slug|name|short(?: ?(?:link|address|name))?|alias|path|code)$/i,
  title: /^(?:title|text|label|note|description)$/i,
};

/**
 * Reads a list of destinations, each with a name and a title behind it if they are wanted: a table when it is one (tabs,
 * a line of headings, or cells in quotation marks or of one kind in every line), else an address and words. A comma
 * within an address stays in it.
 */
export function readAddressList(text: string): AddressList {
  for (const sign of ["\t", ",", ";"] as const) {
    const rows = rowsOf(text, sign);
    const columns = headings(rows[0]?.cells ?? []);
    if (columns) return { sign, items: rows.slice(1).map((row) => item(row, columns)) };
    if (isTable(rows, sign))
      return { sign, items: rows.map((row) => item(row, { address: 0, slug: 1, title: 2 })) };
  }
  return {
    sign: " ",
    items: linesOf(text).map(({ line, pasted }) => {
      const [address = "", slug = "", ...title] = pasted.split(/[\s;]|,(?=\s)/).filter(Boolean);
      return { line, pasted, address, slug, title: title.join(" ") };
    }),
  };
}

interface Row {
  line: number;
  cells: string[];
}
type Columns = Partial<Record<keyof typeof HEADS, number>>;

function rowsOf(text: string, sign: string): Row[] {
  const { data } = Papa.parse<string[]>(text, { delimiter: sign, skipEmptyLines: false });
  return data
    .map((cells, index) => ({ line: index + 1, cells: cells.map((cell) => cell.trim()) }))
    .filter(({ cells }) => cells.some(Boolean));
}

function linesOf(text: string): { line: number; pasted: string }[] {
  return text
    .split(/\r?\n/)
    .map((line, index) => ({ line: index + 1, pasted: line.trim() }))
    .filter(({ pasted }) => pasted !== "");
}

function headings(cells: readonly string[]): Columns | undefined {
  const at = (kind: keyof typeof HEADS): number | undefined => {
    const index = cells.findIndex((cell) => HEADS[kind].test(cell));
    return index === -1 ? undefined : index;
  };
  const columns: Columns = { address: at("address"), slug: at("slug"), title: at("title") };
  return cells.length > 1 && columns.address !== undefined && !cells.some(looksLikeAddress)
    ? columns
    : undefined;
}

// Tabs stand in no address. Commas and semicolons do: then what follows has to be a name in every line that has more.
function isTable(rows: readonly Row[], sign: string): boolean {
  const wide = rows.filter(({ cells }) => cells.length > 1);
  if (wide.length === 0) return false;
  if (sign === "\t") return true;
  return (
    wide.length * 2 > rows.length &&
    wide.every(({ cells }) => cells.length <= 3 && isName(cells[1]!) && isPlain(cells[0]!)) &&
    new Set(wide.map(({ cells }) => cells.length)).size === 1
  );
}

function isPlain(cell: string): boolean {
  return !/\s/.test(cell) && looksLikeAddress(cell);
}

// A number or a file's name behind a comma belongs to an address rather than being what a short link is to be called.
function isName(cell: string): boolean {
  return cell === "" || (/^\/?[\p{L}\p{N}_~/-]+$/u.test(cell) && /\p{L}/u.test(cell));
}

function item({ line, cells }: Row, columns: Columns): ListedAddress {
  const cell = (index: number | undefined): string => (index === undefined ? "" : (cells[index] ?? ""));
  return {
    line,
    pasted: cells.join(" "),
    address: cell(columns.address),
    slug: cell(columns.slug),
    title: cell(columns.title),
  };
}
