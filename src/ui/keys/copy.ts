import { notify } from "../notices/notices.ts";
import * as say from "../words.ts";

/** Puts text on the clipboard and says so. */
export async function copyText(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    notify(say.copied(text));
  } catch {
    notify(say.theBrowserDoesNotAllowCopyingHere, {
      tone: "failed",
    });
  }
}
