import { credentialsSchema, type Credentials } from "../../core/programs/program.ts";
import { allSealed, keepSealed, sealedCredentials } from "../../store/programs/programs.ts";
import { notFound, Problem } from "../ground/problem.ts";
import { openProgram } from "./programs.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { auditAlone, audited } from "../ground/audit.ts";
import type { WithStore, WithSeal } from "../ground/parts.ts";
import type { Actor } from "../../core/people/actor.ts";

/** Stores the name and password of a program's account, sealed. */
export async function keepCredentials(
  desk: WithStore & WithSeal,
  actor: Actor,
  site: OpenSite,
  id: string,
  credentials: Credentials,
): Promise<void> {
  const program = await openProgram(desk, site, id);
  const sealed = desk.seal.close(JSON.stringify(credentials), aboutOf(site, program.id));
  const entry = { siteId: site.id, action: "credentials.keep", object: program.terms.name };
  await audited(desk, actor, entry, (transaction) => keepSealed(desk.store, program.id, sealed, transaction));
}

/** Forgets them. */
export async function dropCredentials(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<void> {
  const program = await openProgram(desk, site, id);
  const entry = { siteId: site.id, action: "credentials.drop", object: program.terms.name };
  await audited(desk, actor, entry, (transaction) => keepSealed(desk.store, program.id, null, transaction));
}

/**
 * Shows them to whoever asked, and notes that in the audit log first: what cannot be noted is not shown. Sealed with an
 * earlier key, they are sealed anew.
 */
export async function showCredentials(
  desk: WithStore & WithSeal,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<Credentials> {
  const program = await openProgram(desk, site, id);
  const sealed = await sealedCredentials(desk.store, program.id);
  if (sealed === null) throw notFound("A name and password of this program");
  await auditAlone(desk, actor, { siteId: site.id, action: "credentials.show", object: program.terms.name });
  const text = desk.seal.open(sealed, aboutOf(site, program.id));
  if (text === undefined) throw wrongKey();
  if (desk.seal.isOld(sealed))
    await keepSealed(desk.store, program.id, desk.seal.close(text, aboutOf(site, program.id)));
  return credentialsSchema.parse(JSON.parse(text));
}

/** Seals all of a site's credentials with the newest key; answers how many, and of which programs no key fits. */
export async function renewSeals(
  desk: WithStore & WithSeal,
  actor: Actor,
  site: OpenSite,
): Promise<{ renewed: number; unreadable: string[] }> {
  const unreadable: string[] = [];
  const entry = (count: number) => ({
    siteId: site.id,
    action: "credentials.renew",
    object: site.key,
    detail: { renewed: count },
  });
  const renewed = await audited(desk, actor, entry, async (transaction) => {
    let count = 0;
    for (const { id, name, sealed } of await allSealed(desk.store, site.id)) {
      const text = desk.seal.open(sealed, aboutOf(site, id));
      if (text === undefined) unreadable.push(name);
      else if (desk.seal.isOld(sealed)) {
        await keepSealed(desk.store, id, desk.seal.close(text, aboutOf(site, id)), transaction);
        count += 1;
      }
    }
    return count;
  });
  return { renewed, unreadable };
}

function aboutOf(site: OpenSite, id: string): string {
  return `${site.id}/${id}`;
}

function wrongKey(): Problem {
  return new Problem(
    422,
    "These cannot be opened",
    "They were stored under another secret key. Start Map Rope with the key of then in MAPROPE_SECRET_BEFORE, or store the name and password anew.",
  );
}
