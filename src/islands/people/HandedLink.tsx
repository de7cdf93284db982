import { Copy } from "lucide-react";
import { when } from "../../ui/format/format.ts";
import { copyText } from "../../ui/keys/copy.ts";
import * as say from "./words.ts";

/** A link to be handed to somebody; it is shown this once. */
export function HandedLink(props: { words: string; path: string; expiresAt: string }) {
  const address = new URL(props.path, location.origin).href;
  return (
    <div role="status" className="my-3 max-w-3xl rounded border border-good bg-sheet p-3">
      <p>{say.itIsShownThisOnceItCan(props.words, when(props.expiresAt))}</p>
      <p className="mt-1 flex items-center gap-2">
        <code className="font-mono text-sm wrap-anywhere">{address}</code>
        <button className="action" onClick={() => void copyText(address)}>
          <Copy size={14} aria-hidden /> {say.copy}
        </button>
      </p>
    </div>
  );
}
