import type { Actor } from "../../core/people/actor.ts";
import type { Installation } from "../../core/people/installation.ts";
import { requiresSecondFactor, setSecondFactorRule } from "../../store/ground/installation.ts";
import { secondFactorOf } from "../../store/people/second-factor.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import type { WithMail } from "./mail-links.ts";
import { invalid } from "../ground/problem.ts";

/** What holds for the whole installation. */
export async function readInstallation(desk: WithStore & WithMail): Promise<Installation> {
  return {
    secondFactor: (await requiresSecondFactor(desk.store)) ? "required" : "optional",
    hasMail: desk.mailer !== undefined,
  };
}

/** Changes it. Whoever asks everybody for a second factor has one: nobody locks themselves out by a slip. */
export async function changeInstallation(
  desk: WithStore & WithMail,
  actor: Actor,
  { secondFactor }: Pick<Installation, "secondFactor">,
): Promise<Installation> {
  if (secondFactor === "required" && actor.person !== undefined) {
    const [own] = await secondFactorOf(desk.store, { person: actor.person });
    if (!own?.since)
      throw invalid([
        { path: "secondFactor", message: "Set up one of your own first, under “Your account”." },
      ]);
  }
  const before = { secondFactor: (await readInstallation(desk)).secondFactor };
  const entry = {
    action: "installation.change",
    object: "installation",
    detail: { before, after: { secondFactor } },
  };
  await audited(desk, actor, entry, (transaction) =>
    setSecondFactorRule(desk.store, secondFactor, transaction),
  );
  return readInstallation(desk);
}
