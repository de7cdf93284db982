import type { IncomingMessage, ServerResponse } from "node:http";
import { LRUCache } from "lru-cache";
import type { DeliveredFile } from "../../store/sites/delivery-view.ts";
import { WHOLE } from "../../core/files/picture.ts";
import { readContent } from "../../store/files/files.ts";
import { readForm } from "../../store/files/forms.ts";
import type { Store } from "../../store/ground/store.ts";
import {
  representationOf,
  sendRepresentation,
  type Representation,
} from "../ground/sending/representation.ts";

const MAX_BYTES = 128 * 1024 * 1024;
// A file never acts on the site: no script, no form, and its type is what we say.
const HEADERS = [
  "Cache-Control",
  "public, max-age=300",
  "X-Content-Type-Options",
  "nosniff",
  "Content-Security-Policy",
  "default-src 'none'; style-src 'unsafe-inline'; img-src data:; media-src 'self'; sandbox",
];

// An address of a form is of its bytes alone.
const FOR_GOOD = ["Cache-Control", "public, max-age=31536000, immutable", ...HEADERS.slice(2)];

/** Answers requests for uploaded files; what is asked for often comes from memory. */
export interface SiteFiles {
  answer(
    file: DeliveredFile,
    exchange: { request: IncomingMessage; response: ServerResponse },
    report: (message: string, error: unknown) => void,
    form?: AskedForm,
  ): void;
}

/** A form of a picture that is asked for, and whether it is the one that its address names. */
export interface AskedForm {
  name: string;
  isCurrent: boolean;
}

export function createSiteFiles(store: Store): SiteFiles {
  const contents = new LRUCache<string, Representation>({
    maxSize: MAX_BYTES,
    sizeCalculation: ({ body }) => body.length + 1,
  });

  // A picture that is cropped is the part of it that is shown, at its own address, too.
  async function contentOf(
    { id, digest, mediaType, updatedAt, formed, forms }: DeliveredFile,
    form = forms.some(({ name }) => name === WHOLE) ? WHOLE : undefined,
  ): Promise<Representation | undefined> {
    const key = `${id} ${digest} ${updatedAt.getTime()} ${formed} ${form}`;
    const known = contents.get(key);
    if (known) return known;
    const read = form === undefined ? undefined : await readForm(store, { id, name: form });
    const content = form === undefined ? await readContent(store, id) : read?.content;
    if (!content) return undefined;
    const type =
      read?.mediaType ?? (mediaType.startsWith("text/") ? `${mediaType}; charset=utf-8` : mediaType);
    const tag = form === undefined ? digest.slice(0, 32) : undefined;
    const made = representationOf(type, content, updatedAt.getTime(), tag);
    contents.set(key, made);
    return made;
  }
  async function answer(
    file: DeliveredFile,
    exchange: { request: IncomingMessage; response: ServerResponse },
    asked: AskedForm | undefined,
  ): Promise<void> {
    const content = await contentOf(file, asked?.name);
    const headers = asked?.isCurrent ? FOR_GOOD : HEADERS;
    if (content) return sendRepresentation(exchange, content, { headers, inParts: true });
    exchange.response
      .writeHead(404, { "Content-Type": "text/plain; charset=utf-8" })
      .end("This file was taken away.\n");
  }
  return {
    answer(file, exchange, report, form) {
      answer(file, exchange, form).catch((error: unknown) => {
        report(`The file ${file.path} could not be read.`, error);
        if (exchange.response.headersSent) return void exchange.response.destroy();
        exchange.response
          .writeHead(503, { "Content-Type": "text/plain; charset=utf-8", "Retry-After": "10" })
          .end("This file cannot be had at the moment.\n");
      });
    },
  };
}
