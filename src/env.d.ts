// The package's ES module has no types of its own; Node's deprecated built-in of the same name is not meant.
declare module "punycode/punycode.es6.js" {
  export function toUnicode(domain: string): string;
}

declare namespace App {
  type Locals = import("./server/workspace.ts").WorkspaceLocals;
}
