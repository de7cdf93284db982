import { z } from "zod";
import type { history } from "../../contract/history.ts";
import { cursorOffset, type Listing } from "../../contract/ground/lists.ts";
import { fileChangeSchema } from "../../core/files/file.ts";
import { sitePath } from "../../core/ground/fields.ts";
import type { Actor } from "../../core/people/actor.ts";
import { ledgerViewInputSchema } from "../../core/ledger/ledger.ts";
import { ruleSchema } from "../../core/rules/rule.ts";
import type { BinItem } from "../../core/sites/history.ts";
import { BIN_DAYS } from "../../core/sites/choices.ts";
import { binOf } from "../../store/sites/bin.ts";
import { setCreativeDeleted } from "../creatives/creatives.ts";
import { restoreFile } from "../files/files.ts";
import { listing } from "../ground/lists.ts";
import type { WithDeliveryPort, WithReport, WithStore, WithWorkspaceHosts } from "../ground/parts.ts";
import { checked } from "../ground/problem.ts";
import { restorePage } from "../pages/pages.ts";
import { restoreView } from "../ledger/views.ts";
import { restoreRule } from "../rules/restore-rule.ts";
import { restoreProgram } from "../programs/programs.ts";
import { restoreRoute } from "../routes/routes.ts";
import type { OpenSite } from "./open-site.ts";

const noAddress = z.strictObject({
  address: z.undefined("It has no address of its own; leave that out."),
});
const ADDRESSES: Readonly<Record<BinItem["kind"], z.ZodType>> = {
  page: z.object({ address: sitePath }),
  route: z.object({ address: sitePath }),
  file: z.object({ address: fileChangeSchema.shape.path }),
  block: noAddress,
  program: noAddress,
  creative: noAddress,
  rule: z.object({ address: ruleSchema.shape.name }),
  view: z.object({ address: ledgerViewInputSchema.shape.name }),
};

/** What was deleted from a site in the last days and can be brought back, the latest first. */
export async function listBin(
  desk: WithStore,
  site: OpenSite,
  query: z.output<typeof history.bin.query>,
): Promise<Listing<BinItem>> {
  const rows = await binOf(
    desk.store,
    { site: site.id, days: BIN_DAYS, kind: query.kind, q: query.q },
    { limit: query.limit, offset: cursorOffset(query.cursor) },
  );
  const items = rows.map(({ id, kind, deletedAt, total: _, ...row }) => ({
    ...row,
    kind,
    id: `${kind}-${id}`,
    deletedAt: deletedAt.toISOString(),
  }));
  return listing(items, Number(rows[0]?.total ?? 0), query);
}

/** Brings something back with all that hung on it; at `address` where its own was given away. Throws a 422 where it was. */
export async function restoreFromBin(
  desk: WithStore & WithDeliveryPort & WithReport & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  item: string,
  address: string | undefined,
): Promise<void> {
  const [kind, id] = item.split("-") as [BinItem["kind"], string];
  if (address !== undefined) checked(ADDRESSES[kind], { address });
  switch (kind) {
    case "page":
    case "block":
      return void (await restorePage(desk, actor, site, id, address));
    case "route":
      return void (await restoreRoute(desk, actor, site, id, address));
    case "file":
      return void (await restoreFile(desk, actor, site, id, address));
    case "program":
      return void (await restoreProgram(desk, actor, site, id));
    case "creative":
      return setCreativeDeleted(desk, actor, site, id, false);
    case "rule":
      return void (await restoreRule(desk, actor, site, id, address));
    case "view":
      return restoreView(desk, actor, site, id, address);
  }
}
