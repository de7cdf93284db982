import type { Actor } from "./actor.ts";
import type { Role } from "./choices.ts";

const RANK: Readonly<Record<Role, number>> = { reader: 1, editor: 2, owner: 3 };

/** The rank of a role for comparing; having none is the lowest. */
function rank(role: Role | null | undefined): number {
  return role ? RANK[role] : 0;
}

/** True when a role is at least the one that is needed. */
export function reaches(role: Role | null | undefined, needed: Role): boolean {
  return rank(role) >= rank(needed);
}

/** The higher of two roles. */
export function higher(one: Role | null | undefined, other: Role | null | undefined): Role | null {
  return (rank(one) >= rank(other) ? one : other) ?? null;
}

/** The lower of two roles: what a token may do of what its person may. */
export function lower(one: Role | null | undefined, other: Role | null | undefined): Role | null {
  return (rank(one) <= rank(other) ? one : other) ?? null;
}

/** What an actor may do on a site; null: not even know that it is there. */
export function roleOn(actor: Actor, siteId: string): Role | null {
  return higher(actor.role, actor.sites?.[siteId]);
}

/** The actor as they act on a site. */
export function onSite(actor: Actor, siteId: string): Actor {
  const { sites: _, ...rest } = actor;
  return { ...rest, role: roleOn(actor, siteId) };
}

/**
 * A person's token as an actor: of what its person may do on each site, at most `role`; on `sites` alone, where it
 * names some.
 */
export function ofToken(
  person: Pick<Actor, "role" | "sites">,
  { role, sites }: { role: Role; sites: readonly string[] | null },
): Pick<Actor, "role" | "sites"> {
  const named = sites ?? Object.keys(person.sites ?? {});
  const single = named.flatMap((id) => {
    const may = lower(role, higher(person.role, person.sites?.[id]));
    return may ? [[id, may] as const] : [];
  });
  return {
    role: sites ? null : lower(role, person.role),
    ...(single.length > 0 || sites ? { sites: Object.fromEntries(single) } : {}),
  };
}
