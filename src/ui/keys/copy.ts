import { notify } from "../notices/notices.ts";

/** Puts text on the clipboard and says so. */
export async function copyText(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    notify(`Copied ${text}`);
  } catch {
    notify("The browser does not allow copying here; mark the address and copy it by hand.", {
      tone: "failed",
    });
  }
}
