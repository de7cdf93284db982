import type { AstroGlobal } from "astro";
import type { ApiDocument } from "./document.ts";

/** The document of the API, as it is answered to anybody. */
export async function apiDocument({
  locals,
  url,
}: Pick<AstroGlobal, "locals" | "url">): Promise<ApiDocument> {
  const response = await locals.call(new Request(new URL("/api/v1/openapi.json", url)), undefined);
  return (await response.json()) as ApiDocument;
}
