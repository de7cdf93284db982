import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { messageOf } from "../../ui/client/api.ts";
import { sendFile } from "../../ui/client/upload.ts";

/** A file on its way up. */
export interface Sending {
  name: string;
  /** How much of it has gone, from 0 to 1. */
  share: number;
  failure: string | undefined;
}

/** Sends files, each with how much of it has gone; those that are refused stay, with the reason. */
export function useSending(
  site: Site,
  onSent: () => void,
): { sending: readonly Sending[]; send: (chosen: readonly File[]) => Promise<void> } {
  const [sending, setSending] = useState<readonly Sending[]>([]);
  const note = (index: number, part: Partial<Sending>): void =>
    setSending((before) => before.map((one, at) => (at === index ? { ...one, ...part } : one)));
  async function send(chosen: readonly File[]): Promise<void> {
    setSending(chosen.map(({ name }) => ({ name, share: 0, failure: undefined })));
    await Promise.all(
      chosen.map((file, index) =>
        sendFile("POST /sites/:site/files", { site: site.id, query: { name: file.name } }, file, (share) =>
          note(index, { share }),
        ).then(
          () => note(index, { share: 1 }),
          (error: unknown) => note(index, { failure: messageOf(error) }),
        ),
      ),
    );
    setSending((before) => before.filter(({ failure }) => failure));
    onSent();
  }
  return { sending, send };
}
