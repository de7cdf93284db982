/** What a page's answer says about being kept and followed, beside the page itself (Robots exclusion, “X-Robots-Tag”). */
export function robotsTag(header: string, agent: string): { noindex: boolean; nofollow: boolean } {
  const said = { noindex: false, nofollow: false };
  // Several fields are joined by commas; one that begins with another's name is for that one.
  let isForUs = true;
  for (const part of header.toLowerCase().split(",")) {
    const [, name, rest] = /^\s*([\w-]+)\s*:(.*)$/.exec(part) ?? [];
    if (name !== undefined && name !== "unavailable_after") isForUs = name === agent.toLowerCase();
    if (!isForUs) continue;
    const token = (rest ?? part).trim();
    if (token === "noindex" || token === "none") said.noindex = true;
    if (token === "nofollow" || token === "none") said.nofollow = true;
  }
  return said;
}

/** How long to wait, in milliseconds, as `Retry-After` tells it (RFC 9110 section 10.2.3); undefined where it tells nothing. */
export function retryAfterMs(header: string | undefined, now: number): number | undefined {
  if (header === undefined || header.trim() === "") return undefined;
  if (/^\s*\d{1,9}\s*$/.test(header)) return Number(header) * 1_000;
  const at = Date.parse(header);
  return Number.isNaN(at) ? undefined : Math.max(0, at - now);
}
