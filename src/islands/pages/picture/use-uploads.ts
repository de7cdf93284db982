import { useCallback, useState } from "react";
import type { Node } from "@tiptap/pm/model";
import type { Editor } from "@tiptap/react";
import type { SiteFile } from "../../../core/files/file.ts";
import type { Site } from "../../../core/sites/site.ts";
import { pictureDefaults } from "./picture-defaults.ts";
import { messageOf } from "../../../ui/client/api.ts";
import { sendFile } from "../../../ui/client/upload.ts";

/** A file on its way, or why it did not get there. */
export interface Upload {
  key: string;
  name: string;
  share: number;
  failure: string | undefined;
  stop(): void;
}

/** Files on their way into the text: several at once, each with its progress. */
export function useUploads(site: Site): {
  uploads: readonly Upload[];
  /** Uploads files and puts them into the text where it stands, or at a position: pictures as pictures, others as links. */
  add(editor: Editor, files: readonly File[], at?: number): void;
  dismiss(key: string): void;
} {
  const [uploads, setUploads] = useState<readonly Upload[]>([]);
  const change = useCallback(
    (key: string, part: Partial<Upload>) =>
      setUploads((before) => before.map((upload) => (upload.key === key ? { ...upload, ...part } : upload))),
    [],
  );
  const dismiss = useCallback(
    (key: string) => setUploads((before) => before.filter((upload) => upload.key !== key)),
    [],
  );
  const add = useCallback(
    (editor: Editor, files: readonly File[], at?: number) => {
      for (const file of files) {
        const key = crypto.randomUUID();
        const abort = new AbortController();
        const upload = { key, name: file.name, share: 0, failure: undefined, stop: () => abort.abort() };
        setUploads((before) => [...before, upload]);
        sendFile(
          "POST /sites/:site/files",
          { site: site.id, query: { name: file.name } },
          file,
          (share) => change(key, { share }),
          abort.signal,
        ).then(
          (stored) => {
            putIn(editor, stored, at);
            dismiss(key);
          },
          (error: unknown) => {
            if (error instanceof DOMException && error.name === "AbortError") return dismiss(key);
            change(key, { failure: messageOf(error) });
          },
        );
      }
    },
    [site.id, change, dismiss],
  );
  return { uploads, add, dismiss };
}

function putIn(editor: Editor, file: SiteFile, at: number | undefined): void {
  const isPicture = file.mediaType.startsWith("image/");
  const content = isPicture
    ? {
        type: "image",
        attrs: {
          src: file.path,
          alt: file.alt,
          pixelWidth: file.width === null ? null : String(file.width),
          pixelHeight: file.height === null ? null : String(file.height),
          ...pictureDefaults(),
        },
      }
    : { type: "text", text: file.name, marks: [{ type: "link", attrs: { href: file.path } }] };
  const { doc, selection } = editor.state;
  const place = besidePictures(doc, Math.min(at ?? selection.to, doc.content.size));
  editor.chain().insertContentAt(place, content).run();
}

// A picture holds its caption, and no other picture.
function besidePictures(doc: Node, at: number): number {
  const place = doc.resolve(at);
  for (let depth = place.depth; depth > 0; depth -= 1) {
    if (place.node(depth).type.name === "image") return place.after(depth);
  }
  return at;
}
