import { readFrontMatter, type PageMeta } from "../../../core/pages/formats/front-matter.ts";
import { readHtmlFile } from "../../../core/pages/formats/html-file.ts";
import { markdownToHtml } from "../../../core/pages/formats/markdown.ts";
import { searchEntries, type FoundEntries } from "../../programs/search-entries.ts";
import { judgePassword, type PasswordJudged } from "../../people/judge-password.ts";
import { sanitizeHtml, type SanitizedHtml } from "../sanitize-html.ts";
import { readAddressText, readPageText, type PageText } from "../../origin/reading/page-text.ts";
import type { NamedAddresses } from "../../../core/origin/sitemap.ts";
import { unpackZip, type Unpacked } from "../transfer/unpack.ts";

/** A text file of a page: what it says of the page, and its text as HTML. */
export interface TextFile {
  meta: PageMeta;
  html: string;
  faults: string[];
}

/** Reading of text from outside, as the thread for it knows it. */
export type TextTask =
  | { do: "take"; html: string }
  | { do: "file"; name: string; text: string }
  | { do: "unpack"; archive: Uint8Array }
  | { do: "catalogue"; bytes: Uint8Array; isJson?: boolean | undefined; words: string[] }
  | { do: "password"; password: string; words: readonly string[] }
  | { do: "page"; bytes: Uint8Array; type: string; address: string }
  | { do: "addresses"; bytes: Uint8Array };

/** What each of them comes to. */
export interface TextResults {
  take: SanitizedHtml;
  file: TextFile;
  unpack: Unpacked[];
  catalogue: FoundEntries;
  password: PasswordJudged;
  page: PageText;
  addresses: NamedAddresses;
}

/** Reads text from outside, off the thread that answers readers. */
export interface Texts {
  /** Throws a Problem for what cannot be read, or takes too long to be. */
  read<T extends TextTask>(task: T): Promise<TextResults[T["do"]]>;
  end(): Promise<void>;
}

export interface WithTexts {
  /** Reads text from outside, off the thread that answers readers. */
  texts: Texts;
}

/** Reads it where it is: for whoever is off that thread already. */
export const textsHere: Texts = { read: async (task) => readText(task), end: async () => {} };

/** Reads text, on whatever thread. */
export function readText<T extends TextTask>(task: T): TextResults[T["do"]] | Promise<TextResults[T["do"]]>;
export function readText(task: TextTask): TextResults[TextTask["do"]] | Promise<PasswordJudged> {
  switch (task.do) {
    case "take":
      return sanitizeHtml(task.html);
    case "file":
      return readFile(task.name, task.text);
    case "unpack":
      return unpackZip(task.archive);
    case "catalogue":
      return searchEntries(task.bytes, task.isJson, task.words);
    case "password":
      return judgePassword(task.password, task.words);
    case "page":
      return readPageText(task.bytes, task.type, task.address);
    case "addresses":
      return readAddressText(task.bytes);
  }
}

function readFile(name: string, text: string): TextFile {
  const { meta, rest, faults } = readFrontMatter(text);
  const file = readHtmlFile(/\.(?:md|markdown)$/i.test(name) ? markdownToHtml(rest) : rest);
  return { meta: { ...file.meta, ...meta }, html: file.html, faults };
}
