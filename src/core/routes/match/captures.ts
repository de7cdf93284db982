import { getDomain } from "tldts";

/** A destination with `$1` to `$9` in it, and what may be done with them. */

const CAPTURE = /\$([1-9])/g;
const LABEL = /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/i;

/** The highest capture that a destination uses; 0 for none. */
export function highestCapture(destination: string): number {
  return Math.max(0, ...[...destination.matchAll(CAPTURE)].map(([, digit]) => Number(digit)));
}

/**
 * What is wrong with the captures of a destination; undefined when nothing is. No visitor may choose whose site
 * a redirect leads to: in the host a capture is a whole label, and the last two labels are written out.
 */
export function captureFault(destination: string, available: number): string | undefined {
  const highest = highestCapture(destination);
  if (highest === 0) return undefined;
  if (highest > available) {
    return available === 0
      ? `$${highest} stands for nothing: an exact address has no captures.`
      : `There is no $${highest}: the address has ${available === 1 ? "one capture, $1" : `${available} captures`}.`;
  }
  const host = hostOf(destination);
  if (host === undefined || !host.includes("$")) return undefined;
  const labels = host.replace(/:\d*$/, "").split(".");
  const whole = labels.every((label) => !label.includes("$") || /^\$[1-9]$/.test(label));
  // Below which name anybody may register one of their own, the public suffix list knows: `co.uk` is not two labels of ours.
  const registered = getDomain(host.replace(/:\d*$/, "").replace(CAPTURE, "x"), {
    allowPrivateDomains: true,
  });
  const own =
    labels.length >= 3 &&
    labels.slice(-Math.max(2, (registered ?? host).split(".").length)).every((label) => !label.includes("$"));
  return whole && own
    ? undefined
    : "Here a reader's address would choose whose site it is. Put a slash between host and capture, or let it be one label of a name that is otherwise written out, such as https://$1.shop.example/.";
}

/** True when a capture stands in the host, which is worth a word even where it is allowed. */
export function capturesHost(destination: string): boolean {
  return hostOf(destination)?.includes("$") ?? false;
}

/**
 * The destination for one request; undefined when a capture cannot stand where its author put it. A path never
 * becomes another host's address: slashes at its front are one.
 */
export function withCaptures(destination: string, captures: readonly string[]): string | undefined {
  if (!destination.includes("$")) return destination;
  const host = hostOf(destination);
  if (host?.includes("$")) {
    const used = [...host.matchAll(CAPTURE)].map(([, digit]) => captures[Number(digit) - 1] ?? "");
    if (!used.every((label) => LABEL.test(label))) return undefined;
  }
  const filled = destination.replace(CAPTURE, (_, digit: string) => captures[Number(digit) - 1] ?? "");
  return destination.startsWith("/") ? filled.replace(/^\/[/\\]+/, "/") : filled;
}

function hostOf(destination: string): string | undefined {
  return /^https?:\/\/([^/?#]*)/i.exec(destination)?.[1];
}
