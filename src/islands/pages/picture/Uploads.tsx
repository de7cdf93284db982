import { X } from "lucide-react";
import type { Upload } from "./use-uploads.ts";
import * as say from "../words.ts";

/** Files on their way, each with its progress, and those that were refused, with the reason. */
export function Uploads({
  uploads,
  dismiss,
}: {
  uploads: readonly Upload[];
  dismiss: (key: string) => void;
}) {
  if (uploads.length === 0) return null;
  return (
    <ul aria-label={say.uploads} className="mb-2 grid gap-1 rounded border border-line bg-sheet p-2 text-sm">
      {uploads.map((upload) => (
        <li key={upload.key} className="flex items-center gap-3">
          <span className="truncate font-medium">{upload.name}</span>
          {upload.failure ? (
            <span role="alert" className="text-bad">
              {upload.failure}
            </span>
          ) : (
            <progress aria-label={say.uploadOf(upload.name)} className="w-40" max={1} value={upload.share} />
          )}
          <button
            className="action action-plain ml-auto px-1"
            aria-label={upload.failure ? say.dismiss(upload.name) : say.stopTheUploadOf(upload.name)}
            onClick={() => (upload.failure ? dismiss(upload.key) : upload.stop())}
          >
            <X size={14} aria-hidden />
          </button>
        </li>
      ))}
    </ul>
  );
}
