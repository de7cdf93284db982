import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { validateXML } from "xmllint-wasm";

const SITEMAP = createRequire(import.meta.url)
  .resolve("sitemap/package.json")
  .replace("package.json", "schema/sitemap.xsd");
const SITEMAPS = new URL("./siteindex.xsd", import.meta.url);
const ATOM = new URL("./atom.rng", import.meta.url);

/** Asserts that a document is a sitemap, or a list of sitemaps, by the protocol's own schema. */
export async function assertSitemap(xml: string): Promise<void> {
  const schema = xml.includes("<sitemapindex") ? SITEMAPS : SITEMAP;
  const { errors } = await validateXML({
    xml: [{ fileName: "sitemap.xml", contents: xml }],
    schema: [{ fileName: "schema.xsd", contents: readFileSync(schema, "utf8") }],
  });
  assert.deepEqual(
    errors.map(({ message }) => message),
    [],
  );
}

/** Asserts that a document is an Atom feed by the schema of RFC 4287, appendix B. */
export async function assertAtom(xml: string): Promise<void> {
  const { errors } = await validateXML({
    xml: [{ fileName: "feed.atom", contents: xml }],
    extension: "relaxng",
    schema: [{ fileName: "atom.rng", contents: readFileSync(ATOM, "utf8") }],
  });
  assert.deepEqual(
    errors.map(({ message }) => message),
    [],
  );
}
