/** Fields of a message as a client hands them over, as text, each byte a sign; none where it has none. */
export function rawFields(raw: unknown): string[] {
  if (!Array.isArray(raw)) return [];
  return raw.map((one: string | Buffer) => (typeof one === "string" ? one : one.toString("latin1")));
}
