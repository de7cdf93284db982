import { addressOf } from "../../contract/ground/address.ts";
import type { Job } from "../../contract/jobs.ts";
import { ApiProblem, AS_JOB, type Answer, type CallName, type Input } from "./api.ts";
import * as say from "../words.ts";

/** Sends a file to a call of the API and tells how much has gone, from 0 to 1. Throws ApiProblem when it is refused. */
export function sendFile<N extends CallName>(
  name: N,
  input: Input<N>,
  file: File,
  progress: (share: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<Answer<N>> {
  return send(addressOf(name, input), file, {}, progress, signal) as Promise<Answer<N>>;
}

/** Sends a file to a call that works on it as a job. */
export function startJobWithFile<N extends CallName>(name: N, input: Input<N>, file: File): Promise<Job> {
  return send(addressOf(name, input), file, AS_JOB, () => undefined) as Promise<Job>;
}

function send(
  href: string,
  file: File,
  headers: Readonly<Record<string, string>>,
  progress: (share: number) => void,
  signal?: AbortSignal,
): Promise<unknown> {
  return new Promise((resolve, reject) => {
    // fetch tells nothing of what has been sent.
    const request = new XMLHttpRequest();
    request.open("POST", href);
    request.setRequestHeader("Content-Type", "application/octet-stream");
    for (const [header, value] of Object.entries(headers)) request.setRequestHeader(header, value);
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 0);
    request.onload = () => {
      const answer = parsed(request.responseText);
      if (request.status < 300) resolve(answer);
      else reject(new ApiProblem(request.status, answer));
    };
    request.onerror = () => reject(new TypeError(say.theNetworkIsGone));
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
