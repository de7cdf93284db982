/**
 * The address under which readers reach a path on one of the site's hosts. Names under `.localhost`
 * (RFC 6761) are a machine of our own and carry the delivery listener's port; all others stand behind https.
 */
export function publicAddress(host: string, path: string, deliveryPort: number): string {
  return /(?:^|\.)localhost$/.test(host) ? `http://${host}:${deliveryPort}${path}` : `https://${host}${path}`;
}
