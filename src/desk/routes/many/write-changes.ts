import type { Transaction } from "sequelize";
import { compareKey } from "../../../core/address/compare.ts";
import { noteRoutes } from "../../../store/ground/changes.ts";
import { addAddresses, dropAddresses } from "../../../store/routes/addresses.ts";
import { updateRoutes } from "../../../store/routes/batches.ts";
import type { WithStore } from "../../ground/parts.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import { searchText } from "../route-values.ts";
import { keysOf } from "../routes.ts";
import type { Change } from "./change.ts";

/** Writes what becomes of many routes, with the addresses that they claim; whoever serves them is told. */
export async function writeChanges(
  desk: WithStore,
  site: OpenSite,
  changes: readonly Change[],
  transaction: Transaction,
): Promise<void> {
  if (changes.length === 0) return;
  const ids = changes.map(({ row }) => row.id);
  await updateRoutes(
    desk.store,
    {
      ids,
      tags: changes.map(({ tags }) => JSON.stringify(tags)),
      enabled: changes.map(({ enabled }) => enabled),
      destination: changes.map(({ destination }) => destination),
      key: changes.map(({ destination }) => destination && compareKey(destination)),
      address: changes.map(({ address }) => address),
      aliases: changes.map(({ aliases }) => JSON.stringify(aliases)),
      search: changes.map(({ row, ...now }) => searchText({ ...row, ...now })),
      noindex: changes.map(({ noindex }) => noindex),
      nofollow: changes.map(({ nofollow }) => nofollow),
      deleted: changes.map(({ deleted }) => deleted),
    },
    transaction,
  );
  await dropAddresses(desk.store, { ids }, transaction);
  const claims = changes
    .filter(({ deleted }) => !deleted)
    .flatMap(({ row, ...now }) =>
      keysOf({ ...row, ...now }).map((key) => ({ id: row.id, host: row.host ?? "*", key })),
    );
  await addAddresses(
    desk.store,
    {
      site: site.id,
      host: claims.map(({ host }) => host),
      key: claims.map(({ key }) => key),
      id: claims.map(({ id: one }) => one),
    },
    transaction,
  );
  await noteRoutes(desk.store, transaction, site.id, ids);
}
