/**
 * True when the request's Origin header names the scheme, host and port that it was sent to (RFC 6454). `secure` says
 * whether readers of the workspace come by https.
 */
export function isOwnOrigin(request: Request, secure: boolean): boolean {
  const origin = request.headers.get("origin");
  const host = request.headers.get("host");
  if (!origin || !host || !URL.canParse(origin)) return false;
  const own = `${secure ? "https" : "http"}://${host}`;
  return URL.canParse(own) && new URL(origin).origin === new URL(own).origin;
}

const OWN = "http://own.invalid";

/**
 * Where a person wants to go back to, judged as a browser reads it: a path of the workspace itself with its query, or
 * its front page for anything else.
 */
export function ownPath(wanted: string): string {
  if (!URL.canParse(wanted, OWN)) return "/";
  const { origin, pathname, search, hash } = new URL(wanted, OWN);
  return origin === OWN && !pathname.startsWith("//") ? pathname + search + hash : "/";
}
