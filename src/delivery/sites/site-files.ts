import type { IncomingMessage, ServerResponse } from "node:http";
import { LRUCache } from "lru-cache";
import type { DeliveredFile } from "../../store/sites/delivery-view.ts";
import { readContent } from "../../store/files/files.ts";
import type { Store } from "../../store/ground/store.ts";

const MAX_BYTES = 128 * 1024 * 1024;

/** Answers requests for uploaded files; what is asked for often comes from memory. */
export interface SiteFiles {
  answer(
    file: DeliveredFile,
    exchange: { request: IncomingMessage; response: ServerResponse },
    report: (message: string, error: unknown) => void,
  ): void;
}

export function createSiteFiles(store: Store): SiteFiles {
  const contents = new LRUCache<string, Buffer>({
    maxSize: MAX_BYTES,
    sizeCalculation: (content) => content.length + 1,
  });

  async function contentOf(file: DeliveredFile): Promise<Buffer | undefined> {
    const key = `${file.id} ${file.digest}`;
    const known = contents.get(key);
    if (known) return known;
    const content = await readContent(store, file.id);
    if (content) contents.set(key, content);
    return content;
  }
  return {
    answer(file, { request, response }, report) {
      const tag = `"${file.digest.slice(0, 32)}"`;
      if (request.headers["if-none-match"]?.includes(tag))
        return void response.writeHead(304, { ETag: tag }).end();
      contentOf(file).then(
        (content) => {
          if (!content)
            return void response
              .writeHead(404, { "Content-Type": "text/plain; charset=utf-8" })
              .end("This file was taken away.\n");
          response.writeHead(200, {
            "Content-Type": file.mediaType.startsWith("text/")
              ? `${file.mediaType}; charset=utf-8`
              : file.mediaType,
            "Content-Length": content.length,
            "Cache-Control": "public, max-age=300",
            ETag: tag,
            // A file never acts on the site: no script, no form, and its type is what we say.
            "X-Content-Type-Options": "nosniff",
            "Content-Security-Policy":
              "default-src 'none'; style-src 'unsafe-inline'; img-src data:; media-src 'self'; sandbox",
          });
          response.end(request.method === "HEAD" ? undefined : content);
        },
        (error: unknown) => {
          report(`The file ${file.path} could not be read.`, error);
          response
            .writeHead(503, { "Content-Type": "text/plain; charset=utf-8", "Retry-After": "10" })
            .end("This file cannot be had at the moment.\n");
        },
      );
    },
  };
}
