import { placeOf, countReset } from "./throttle.ts";
import type { z } from "zod";
import type { Actor } from "../../core/people/actor.ts";
import { RESET_DAYS, type HandedLink } from "../../core/people/member.ts";
import type { resetInputSchema } from "../../core/people/person.ts";
import type { Mailer } from "../../outgoing/mail.ts";
import { findPerson } from "../../store/people/people.ts";
import { audited } from "../ground/audit.ts";
import type { WithReport, WithStore } from "../ground/parts.ts";
import { invalid, Problem } from "../ground/problem.ts";
import { handLink } from "./links.ts";

export interface WithMail {
  /** Sends mail; undefined where no mail server is configured. */
  mailer: Mailer | undefined;
  /** Where people reach the workspace, such as https://desk.lowlantern.example; without a slash at its end. */
  workspaceUrl: string;
}

/** What somebody who is let in, and somebody who lost their password, is written. */
const TEXTS = {
  invite: {
    subject: "Your invitation to Map Rope",
    text: "You are invited to Map Rope. Choose your password here:",
  },
  reset: {
    subject: "A new password for Map Rope",
    text: "Somebody, likely you, wants a new password for you at Map Rope. Choose it here, or do nothing and keep the one that you have:",
  },
} as const;

/**
 * Sends somebody the link with which they choose a password. Answers whether the mail server took it: where it did not, the
 * link is still to be handed over. Throws a 422 where no mail server is configured.
 */
export async function mailLink(
  desk: WithMail & WithReport,
  to: { mail: string; name: string },
  link: HandedLink,
  what: keyof typeof TEXTS,
): Promise<boolean> {
  if (!desk.mailer) throw new Problem(422, "No mail server", NO_SERVER);
  const { subject, text } = TEXTS[what];
  const until = `${link.expiresAt.slice(0, 16).replace("T", " ")} UTC`;
  const body = [
    `Hello ${to.name},`,
    text,
    desk.workspaceUrl + link.path,
    `It can be used until ${until}, once.`,
  ];
  try {
    await desk.mailer.send({ to: to.mail, subject, text: `${body.join("\n\n")}\n` });
    return true;
  } catch (error) {
    desk.report("A mail could not be sent.", error);
    return false;
  }
}

/** Sends a link that was just made, where that was asked for; `make` makes it, and is not begun where no mail can be sent. */
export async function mailedIf<T extends { mail: string; name: string; link: HandedLink | null }>(
  desk: WithMail & WithReport,
  byMail: boolean | undefined,
  make: () => Promise<T>,
): Promise<T> {
  if (!byMail) return make();
  if (!desk.mailer) throw invalid([{ path: "byMail", message: NO_SERVER }]);
  const made = await make();
  if (!made.link) return made;
  return { ...made, link: { ...made.link, mailed: await mailLink(desk, made, made.link, "invite") } };
}

const NO_SERVER = "No mail server is configured here; hand the link over instead.";
const NOBODY: Actor = { name: "nobody", role: null };

/**
 * Sends whoever has this mail address, if anybody does, a link for a new password. Nobody learns whether there is such a
 * person: neither by the answer nor by its time. Throws a 429 where it is asked too often, and a 422 without a mail server.
 */
export async function mailReset(
  desk: WithStore & WithMail & WithReport,
  { mail }: z.infer<typeof resetInputSchema>,
  from: string,
): Promise<void> {
  if (!desk.mailer)
    throw new Problem(422, "No mail server", "No mail server is configured here: an owner makes you a link.");
  const place = placeOf(from);
  await countReset(desk, mail, place);
  void sendReset(desk, mail, place).catch((error: unknown) =>
    desk.report("A reset could not be mailed.", error),
  );
}

async function sendReset(
  desk: WithStore & WithMail & WithReport,
  mail: string,
  place: string,
): Promise<void> {
  const person = await findPerson(desk.store, { email: mail });
  if (!person || person.deactivatedAt) return;
  const entry = { action: "person.reset-asked", object: person.id, detail: { place } };
  const link = await audited(desk, NOBODY, entry, (transaction) =>
    handLink(desk, person.id, RESET_DAYS, transaction),
  );
  await mailLink(desk, { mail, name: person.name }, link, "reset");
}
