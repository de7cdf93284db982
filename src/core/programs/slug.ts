import { before } from "../text/cut.ts";

const PART = /\{(program|page|product)\}/g;

/** What a short link to a program can be named by. */
export interface SlugSource {
  program: string;
  /** Path of the page that it stands on. */
  page?: string;
  /** The product's address. */
  destination: string;
}

/** The last part of a short link's path, by the program's pattern; empty when nothing of it is known. */
export function programSlug(pattern: string, { program, page = "", destination }: SlugSource): string {
  const product = lastPart(before(destination.replace(/^https?:\/\/[^/?#]+/i, ""), "?#"));
  const values: Readonly<Record<string, string>> = {
    program,
    page: lastPart(page),
    product: product.replace(/\.[a-z]{2,5}$/i, ""),
  };
  return pattern
    .replace(PART, (_, name: string) => values[name]!)
    .normalize("NFKD")
    .replace(/\p{Mark}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
}

function lastPart(path: string): string {
  return path.split("/").filter(Boolean).at(-1) ?? "";
}
