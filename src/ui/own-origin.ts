/** True when the request's Origin header names the host that it was sent to (RFC 6454). */
export function isOwnOrigin(request: Request): boolean {
  const origin = request.headers.get("origin");
  if (!origin || !URL.canParse(origin)) return false;
  return new URL(origin).host === request.headers.get("host");
}
