/** A host without the dot of the name system's root (RFC 1034 section 3.1): the same host, whichever way it is written. */
export function rootless(host: string): string {
  return host.replace(/\.(?=:\d+$|$)/, "");
}
