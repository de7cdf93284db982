/** Why something outside was not asked, or not read to its end, in words that go on from its address. */
export class Refusal extends Error {}

/** What came between us and an answer, in words that go on from its address. */
export function reasonOf(error: unknown, late: boolean, timeoutMs: number): string {
  if (error instanceof Refusal) return error.message;
  if (error instanceof Error && error.cause instanceof Refusal) return error.cause.message;
  if (late) return `did not answer within ${Math.round(timeoutMs / 1000)} seconds`;
  const { code, name } = error as NodeJS.ErrnoException;
  if (name === "AbortError") return "was not asked to the end";
  switch (code) {
    case "ENOTFOUND":
    case "EAI_AGAIN":
      return "has no address";
    case "ECONNREFUSED":
      return "refuses connections";
    case "ECONNRESET":
    case "EPIPE":
    case "ERR_STREAM_PREMATURE_CLOSE":
    case "UND_ERR_SOCKET":
      return "closes the connection";
    case "UND_ERR_CONNECT_TIMEOUT":
    case "UND_ERR_HEADERS_TIMEOUT":
    case "UND_ERR_BODY_TIMEOUT":
      return `did not answer within ${Math.round(timeoutMs / 1000)} seconds`;
    case "UND_ERR_HEADERS_OVERFLOW":
      return "answers with fields that are longer than is taken";
    case "UND_ERR_RES_CONTENT_LENGTH_MISMATCH":
      return "stopped half-way";
    default:
      return /CERT|SSL|TLS/i.test(code ?? "")
        ? "has a certificate that cannot be trusted"
        : "cannot be reached";
  }
}
