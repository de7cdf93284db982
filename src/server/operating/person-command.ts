import { personInputSchema } from "../../core/people/member.ts";
import { ROLES } from "../../core/people/choices.ts";
import { invitePerson, listPeople } from "../../desk/people/installation-people.ts";
import { resetLink } from "../../desk/people/links.ts";
import { argumentsOf, HOUSE, WrongUsage, type Operating } from "./operate.ts";

const USAGE =
  "say “person list”, “person invite MAIL [--name NAME] [--role owner|editor|reader]” or “person reset MAIL”; roles hold on every site.";

const OPTIONS = { role: { type: "string" }, name: { type: "string" } } as const;

/** What an operator does about people: lists them, invites one, or makes a way back in for one who lost their password. */
export async function personCommand(
  args: readonly string[],
  { store, config, say }: Operating,
): Promise<void> {
  const { what, which: mail, values } = argumentsOf(args, OPTIONS, USAGE);
  const { name, role } = values;
  if (role !== undefined && !(ROLES as readonly string[]).includes(role)) throw new WrongUsage(USAGE);
  const desk = { store };
  const address = (path: string): string => `http://${config.host}:${config.port}${path}`;
  if (what === "list" && mail === undefined) {
    for (const one of await listPeople(desk)) {
      const roles = [
        one.role && `${one.role} of every site`,
        ...one.roles.map(({ site, role: of }) => `${of} of site ${site}`),
      ];
      say(
        `${one.mail}  ${one.name}  ${roles.filter(Boolean).join(", ") || "no role"}${{ active: "", invited: "  not come in yet", out: "  kept out" }[one.state]}`,
      );
    }
    return;
  }
  if (mail === undefined) throw new WrongUsage(USAGE);
  if (what === "invite") {
    const input = personInputSchema.safeParse({
      mail,
      name: name ?? mail.split("@")[0],
      role: role ?? "owner",
    });
    if (!input.success) throw new WrongUsage(input.error.issues[0]!.message);
    const made = await invitePerson(desk, HOUSE, input.data);
    return say(`${made.mail} signs in with ${address(made.link.path)} until ${made.link.expiresAt}.`);
  }
  if (what === "reset") {
    const { path, expiresAt } = await resetLink(desk, HOUSE, { email: mail.trim().toLowerCase() });
    return say(`A new password is chosen at ${address(path)} until ${expiresAt}.`);
  }
  throw new WrongUsage(USAGE);
}
