import type { Actor } from "../../core/people/actor.ts";
import { INVITE_DAYS, type HandedLink, type Member, type MemberInput } from "../../core/people/member.ts";
import type { Role } from "../../core/people/choices.ts";
import { dropSiteRole, membersOf, peopleWithRoles, setSiteRole } from "../../store/people/members.ts";
import { findPerson, insertPerson, removePerson } from "../../store/people/people.ts";
import { beforeAndAfter } from "../ground/before-after.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { handLink } from "./links.ts";
import { refuseTaken } from "./taken.ts";

/** Who may come into a site, by name. */
export async function listMembers(desk: WithStore, site: OpenSite): Promise<Member[]> {
  return (await membersOf(desk.store, { site: site.id })).map((row) => ({
    ...row,
    lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
  }));
}

/**
 * Lets somebody into a site: whoever has an account may come in at once, somebody new chooses a password by a link, which
 * is in this answer and nowhere else.
 */
export async function inviteMember(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { mail, name, role }: MemberInput,
): Promise<Member & { link: HandedLink | null }> {
  const known = await findPerson(desk.store, { email: mail });
  if (known?.deactivatedAt)
    throw new Problem(
      409,
      "Kept out",
      "Whoever has this address cannot sign in; an owner of the installation can change that.",
    );
  if (!known) {
    if (name === undefined)
      throw invalid([{ path: "name", message: "Somebody new: what are they called? They may change it." }]);
    await refuseTaken(desk, { name, email: mail });
  }
  const detail = { mail, role, isNew: !known };
  const entry = { siteId: site.id, action: "member.invite", object: mail, detail };
  const made = await audited(desk, actor, entry, async (transaction) => {
    const id =
      known?.id ??
      (
        await insertPerson(
          desk.store,
          { email: mail, name: name!, role: null, passwordHash: "" },
          transaction,
        )
      ).id;
    await setSiteRole(desk.store, { person: id, site: site.id, role }, transaction);
    return { id, link: known ? null : await handLink(desk, id, INVITE_DAYS, transaction) };
  });
  const member = await memberOf(desk, site, made.id);
  return { ...member, link: made.link };
}

/** Changes what the site lets somebody do who may come into it already. */
export async function changeMember(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  role: Role,
): Promise<Member> {
  const before = await memberOf(desk, site, id);
  const entry = {
    siteId: site.id,
    action: "member.change",
    object: id,
    detail: { name: before.name, ...beforeAndAfter({ role: before.role }, { role }) },
  };
  await audited(desk, actor, entry, (transaction) =>
    setSiteRole(desk.store, { person: id, site: site.id, role }, transaction),
  );
  return memberOf(desk, site, id);
}

/** Takes from somebody what the site lets them do; what they may do on every site stays. */
export async function removeMember(desk: WithStore, actor: Actor, site: OpenSite, id: string): Promise<void> {
  const { name, role, state } = await memberOf(desk, site, id);
  const entry = { siteId: site.id, action: "member.remove", object: id, detail: { name, before: role } };
  await audited(desk, actor, entry, async (transaction) => {
    if (!(await dropSiteRole(desk.store, { person: id, site: site.id }, transaction)))
      throw new Problem(
        409,
        "Not by this site",
        `What ${name} may do here holds on every site; an owner of the installation changes it.`,
      );
    // Whoever never came in, and may not come in anywhere any more, was a slip of the invitation.
    const [left] = await peopleWithRoles(desk.store, { id });
    if (state === "invited" && left!.role === null && left!.roles.every((one) => one.site === site.id))
      await removePerson(desk.store, id, transaction);
  });
}

/** Somebody who may come into a site. Throws a 404 for others. */
export async function memberOf(desk: WithStore, site: OpenSite, id: string): Promise<Member> {
  const member = (await listMembers(desk, site)).find((one) => one.id === id);
  if (!member) throw notFound("This person");
  return member;
}
