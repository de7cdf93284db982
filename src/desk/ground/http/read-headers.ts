import { z } from "zod";
import { MAX_TIMEOUT_MS, DEFAULT_TIMEOUT_MS } from "../../ledger/fresh-ledger.ts";
import { fieldErrors } from "../problem.ts";
import { notAsDocumented } from "./read-query.ts";

/** What a caller would rather have (RFC 7240). */
export interface Preferences {
  /** A job instead of waiting (`respond-async`, section 4.1). */
  background: boolean;
  /** How long to wait rather than get what was (`wait`, section 4.3), in milliseconds. */
  timeoutMs: number;
}

const seconds = z
  .string()
  .regex(/^\d{1,6}$/)
  .transform(Number);

/** The headers that a call reads; others are none of its business. */
const headersSchema = z.object({
  prefer: z.string().max(1_000, "Prefer holds at most 1,000 signs.").default("").transform(preferencesOf),
  "content-type": z.string().max(300, "Content-Type holds at most 300 signs.").default(""),
  "if-match": z.string().max(300, "If-Match holds at most 300 signs.").optional(),
  "if-none-match": z.string().max(3_000, "If-None-Match holds at most 3,000 signs.").optional(),
  // A string of structured fields (RFC 9651, section 3.3.3), whose quotes may be left out.
  "idempotency-key": z
    .string()
    .regex(
      /^(?:"[\x20-\x21\x23-\x7e]{1,255}"|[\x21\x23-\x7e]{1,255})$/,
      "Idempotency-Key is 1 to 255 signs of ASCII.",
    )
    .transform((key) => key.replace(/^"(.*)"$/, "$1"))
    .optional(),
});
export type CallHeaders = z.infer<typeof headersSchema>;

/** Reads a request's headers by their schema; throws a 400 that names each one that cannot be read. */
export function readHeaders(headers: Headers): CallHeaders {
  const given = Object.keys(headersSchema.shape).map((name) => [name, headers.get(name) ?? undefined]);
  const read = headersSchema.safeParse(Object.fromEntries(given));
  if (read.success) return read.data;
  throw notAsDocumented(fieldErrors(read.error));
}

// What is unknown, or makes no sense, is passed over; of what is said twice the first counts (section 2).
function preferencesOf(prefer: string): Preferences {
  const said = new Map<string, string>();
  for (const one of prefer.split(",")) {
    const [preference = ""] = one.split(";");
    const [name = "", value = ""] = preference.split("=").map((part) => part.trim());
    if (!said.has(name.toLowerCase())) said.set(name.toLowerCase(), value.replace(/^"([^"]*)"$/, "$1"));
  }
  const wait = seconds.safeParse(said.get("wait"));
  return {
    background: said.has("respond-async"),
    timeoutMs: wait.success ? Math.min(wait.data * 1_000, MAX_TIMEOUT_MS) : DEFAULT_TIMEOUT_MS,
  };
}
