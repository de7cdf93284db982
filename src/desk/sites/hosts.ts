import type { Transaction } from "sequelize";
import type { z } from "zod";
import { publicAddress } from "../../core/address/public-address.ts";
import type { Actor } from "../../core/people/actor.ts";
import type { hostChangeSchema, hostInputSchema, SiteHost } from "../../core/sites/host.ts";
import type { HostRole } from "../../core/sites/choices.ts";
import { noteChange, noteRoutes } from "../../store/ground/changes.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import {
  hostsWithRoutes,
  insertHost,
  removeHost,
  renameHost,
  updateHostRole,
} from "../../store/sites/sites.ts";
import { audited, type AuditEntry } from "../ground/audit.ts";
import type { WithDeliveryPort, WithStore, WithWorkspaceHosts } from "../ground/parts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import { rebuildJob } from "../ledger/ledger-jobs.ts";
import type { OpenSite } from "./open-site.ts";

type HostDesk = WithStore & WithDeliveryPort & WithJobs & WithThread;

/** The hosts of a site with what hangs on each, the oldest first. */
export async function listHosts(desk: WithStore & WithDeliveryPort, site: OpenSite): Promise<SiteHost[]> {
  return (await hostsWithRoutes(desk.store, { site: site.id })).map((host) => ({
    ...host,
    url: publicAddress(host.name, "/", desk.deliveryPort),
  }));
}

/** Lets a site be found under another name, too. Throws a 422 at `name` where that is somebody's already. */
export async function addHost(
  desk: HostDesk & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  { name, role }: z.infer<typeof hostInputSchema>,
): Promise<SiteHost> {
  refuseWorkspace(desk, name);
  await freeName(name, () =>
    changed(
      desk,
      actor,
      site,
      { action: "host.add", object: name, detail: { role } },
      async (transaction) => {
        if (role === "primary") await stepBack(desk, site, transaction);
        await insertHost(desk.store, { siteId: site.id, name, role, leadsTo: null }, transaction);
      },
    ),
  );
  return hostOf(desk, site, name);
}

/**
 * Gives a host another role, or another name, and all that hangs on it goes along. One that is made primary takes the place of
 * the one that was; the name that it had may go on leading to the new one. Throws a 422 at `name` where that is somebody's.
 */
export async function changeHost(
  desk: HostDesk & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  name: string,
  { role, name: next = name, keepsOld = true }: z.infer<typeof hostChangeSchema>,
): Promise<SiteHost> {
  const before = await hostOf(desk, site, name);
  if (role !== undefined && role !== before.role) await changeRole(desk, actor, site, before, role);
  if (next !== name) await rename(desk, actor, site, before, { next, keepsOld });
  return hostOf(desk, site, next);
}

async function changeRole(
  desk: HostDesk,
  actor: Actor,
  site: OpenSite,
  { name, role: before }: SiteHost,
  role: Exclude<HostRole, "former">,
): Promise<void> {
  if (before === "primary")
    throw invalid([
      { path: "role", message: "A site has one primary host: make another one primary instead." },
    ]);
  const detail = { before, after: role };
  await changed(desk, actor, site, { action: "host.change", object: name, detail }, async (transaction) => {
    if (role === "primary") await stepBack(desk, site, transaction);
    await updateHostRole(desk.store, { siteId: site.id, name, role }, transaction);
  });
}

async function rename(
  desk: HostDesk & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  { name }: SiteHost,
  { next, keepsOld }: { next: string; keepsOld: boolean },
): Promise<void> {
  refuseWorkspace(desk, next);
  const detail = { before: name, after: next, keepsOld };
  const entry = { action: "host.rename", object: next, detail };
  await freeName(next, () =>
    changed(desk, actor, site, entry, async (transaction) => {
      const routes = await renameHost(desk.store, { site: site.id, name, next }, transaction);
      const former = { siteId: site.id, name, role: "former", leadsTo: next } as const;
      if (keepsOld) await insertHost(desk.store, former, transaction);
      await noteRoutes(desk.store, transaction, site.id, routes);
    }),
  );
}

/** Takes a host from a site. Throws a 409 for the primary one, and where routes answer on it alone. */
export async function deleteHost(desk: HostDesk, actor: Actor, site: OpenSite, name: string): Promise<void> {
  const { role, routes } = await hostOf(desk, site, name);
  if (role === "primary")
    throw new Problem(409, "The primary host", "Make another host primary first; pages answer on that one.");
  if (routes > 0)
    throw new Problem(
      409,
      "Routes answer there",
      `${routes} ${routes === 1 ? "route answers" : "routes answer"} on ${name} alone: lead them elsewhere, or delete them first.`,
    );
  await changed(desk, actor, site, { action: "host.remove", object: name, detail: { role } }, (transaction) =>
    removeHost(desk.store, { siteId: site.id, name, primary: site.primary }, transaction),
  );
}

function refuseWorkspace(desk: WithWorkspaceHosts, name: string): void {
  if (isWorkspace(desk, name))
    throw invalid([
      { path: "name", message: "The workspace itself is found under this name; readers need another." },
    ]);
}

async function freeName<T>(name: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (violatedIndex(error) === "hosts_name_key")
      throw invalid([{ path: "name", message: `A site has the host ${name} already.` }]);
    throw error;
  }
}

/** Whether the workspace itself is found under this name. */
export function isWorkspace(desk: WithWorkspaceHosts, name: string): boolean {
  return desk.workspaceHosts.some((host) => host.replace(/:\d+$/, "") === name);
}

// What is inside and what is outside is told by the hosts: all links are read anew.
async function changed(
  desk: HostDesk,
  actor: Actor,
  site: OpenSite,
  entry: AuditEntry,
  work: (transaction: Transaction) => Promise<void>,
): Promise<void> {
  await audited(desk, actor, { siteId: site.id, ...entry }, async (transaction) => {
    await work(transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  await desk.jobs.start(actor, site, rebuildJob, null);
}

async function stepBack(desk: WithStore, site: OpenSite, transaction: Transaction): Promise<void> {
  await updateHostRole(desk.store, { siteId: site.id, name: site.primary, role: "other" }, transaction);
}

async function hostOf(desk: WithStore & WithDeliveryPort, site: OpenSite, name: string): Promise<SiteHost> {
  const host = (await listHosts(desk, site)).find((one) => one.name === name);
  if (!host) throw notFound(`The host ${name}`);
  return host;
}
