import type { SiteFile } from "../../core/files/file.ts";
import { ApiProblem } from "./api.ts";

/** Sends a file to the API and tells how much has gone, from 0 to 1. Throws ApiProblem when it is refused. */
export function sendFile<T = SiteFile>(
  path: string,
  file: File,
  progress: (share: number) => void,
  signal?: AbortSignal,
  headers: Readonly<Record<string, string>> = {},
): Promise<T> {
  return new Promise((resolve, reject) => {
    // fetch tells nothing of what has been sent.
    const request = new XMLHttpRequest();
    request.open(
      "POST",
      `/api/v1${path}${path.includes("?") ? "&" : "?"}name=${encodeURIComponent(file.name)}`,
    );
    request.setRequestHeader("Content-Type", "application/octet-stream");
    for (const [name, value] of Object.entries(headers)) request.setRequestHeader(name, value);
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 0);
    request.onload = () => {
      const answer = parsed(request.responseText);
      if (request.status < 300) resolve(answer as T);
      else reject(new ApiProblem(request.status, answer));
    };
    request.onerror = () => reject(new TypeError("the network is gone"));
    request.onabort = () => reject(new DOMException("stopped", "AbortError"));
    signal?.addEventListener("abort", () => request.abort());
    request.send(file);
  });
}

function parsed(text: string): object {
  try {
    return JSON.parse(text) as object;
  } catch {
    return {}; // no JSON came: something between here and the workspace answered
  }
}
