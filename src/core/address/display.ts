/** An address cut for the eye: the host carries the weight, the rest is quiet. */
export interface AddressParts {
  before: string;
  host: string;
  after: string;
}

/** Splits an address for display; what has no host (a path, a mail) is all `after`. */
export function addressParts(address: string): AddressParts {
  const match = /^([a-z][a-z\d+.-]*:\/\/)([^/?#]*)/i.exec(address);
  return match
    ? { before: match[1]!, host: match[2]!, after: address.slice(match[0].length) }
    : { before: "", host: "", after: address };
}

/** Shortens text in its middle to at most `most` characters, so that both ends stay readable. */
export function shortenMiddle(text: string, most: number): string {
  if (text.length <= most) return text;
  const head = Math.ceil((most - 1) * 0.6);
  return `${text.slice(0, head)}…${text.slice(text.length - (most - 1 - head))}`;
}
