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
    case "CERT_HAS_EXPIRED":
      return "has a certificate that has expired";
    case "CERT_NOT_YET_VALID":
      return "has a certificate that is not valid yet";
    case "ERR_TLS_CERT_ALTNAME_INVALID":
    case "HOSTNAME_MISMATCH":
      return "has a certificate for another name";
    case "DEPTH_ZERO_SELF_SIGNED_CERT":
    case "SELF_SIGNED_CERT_IN_CHAIN":
      return "has a certificate that nobody but itself vouches for";
    case "UNABLE_TO_VERIFY_LEAF_SIGNATURE":
    case "UNABLE_TO_GET_ISSUER_CERT":
    case "UNABLE_TO_GET_ISSUER_CERT_LOCALLY":
      return "has a certificate whose issuer is not known";
    case "EPROTO":
      return "does not speak as a secure server does";
    default:
      if (/^ERR_SSL_/.test(code ?? "")) return "does not speak as a secure server does";
      return /CERT|TLS/i.test(code ?? "") ? "has a certificate that cannot be trusted" : "cannot be reached";
  }
}
