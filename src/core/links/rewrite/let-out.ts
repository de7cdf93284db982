import { mayLeave } from "../../address/may-leave.ts";
import { rewriteLinks } from "./rewrite.ts";

/**
 * Stored HTML without the addresses that may not leave the house: of such a link its words stay, of a picture its
 * alternative text. All else stays as it was.
 */
export function letOut(html: string): string {
  return rewriteLinks(
    html,
    ({ href, rel, target }) => ({ rel, target, href: mayLeave(href) ? undefined : null }),
    { keepOverride: true, keepsPicture: mayLeave },
  );
}
