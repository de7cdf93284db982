import { listQuery } from "./ground/lists.ts";
import { fileSchema, uploadQuery, MAX_FILE, fileChangeSchema, fileUsesSchema } from "../core/files/file.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about files. */
export const files = {
  list: call("GET", "/sites/:site/files", {
    summary: "List files",
    role: "reader",
    query: listQuery,
    answer: listOf(fileSchema),
  }),
  upload: call("POST", "/sites/:site/files", {
    summary: "Upload a file: its content is the body, its name the query parameter",
    role: "editor",
    query: uploadQuery,
    bytes: { media: ["*/*"], max: MAX_FILE },
    answer: fileSchema,
    status: 201,
  }),
  content: call("GET", "/sites/:site/files/:id/content", {
    summary: "A file as it was uploaded, all of it, also where readers are shown a part of a picture",
    role: "reader",
    file: { media: ["*/*"] },
  }),
  change: call("PATCH", "/sites/:site/files/:id", {
    summary: "Change a file's alternative text or path, or which part of a picture is shown",
    role: "editor",
    body: fileChangeSchema,
    answer: fileSchema,
  }),
  uses: call("GET", "/sites/:site/files/:id/uses", {
    summary: "The pages and blocks that use a file",
    role: "reader",
    answer: fileUsesSchema,
  }),
  delete: call("DELETE", "/sites/:site/files/:id", {
    summary: "Delete a file; it can be restored",
    role: "editor",
  }),
  restore: call("POST", "/sites/:site/files/:id/restore", {
    summary: "Bring a deleted file back",
    role: "editor",
    answer: fileSchema,
  }),
};
