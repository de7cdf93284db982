import type { files as contract } from "../../contract/files.ts";
import * as files from "./files.ts";
import { type Handlers } from "../ground/http/handler.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

/** What the calls about files do. */
export const filesHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort> = {
  list: ({ desk, site, query }) => files.listFiles(desk, site, query),
  upload: ({ desk, actor, site, query, bytes }) => files.uploadFile(desk, actor, site, query.name, bytes),
  change: ({ desk, actor, site, params, body }) => files.changeFile(desk, actor, site, params.id, body),
  content: ({ desk, site, params }) => files.fileContent(desk, site, params.id),
  uses: ({ desk, site, params }) => files.fileUses(desk, site, params.id),
  delete: ({ desk, actor, site, params }) => files.deleteFile(desk, actor, site, params.id),
  restore: ({ desk, actor, site, params }) => files.restoreFile(desk, actor, site, params.id),
};
