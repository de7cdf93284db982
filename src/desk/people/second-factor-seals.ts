import type { Actor } from "../../core/people/actor.ts";
import { keepSecondFactorSecret, sealedSecondFactors } from "../../store/people/second-factor.ts";
import { audited } from "../ground/audit.ts";
import type { WithSeal, WithStore } from "../ground/parts.ts";
import { aboutSecondFactor } from "./second-factor.ts";

/** Seals everybody's second factor with the newest secret; answers how many, and whose no secret that is known opens. */
export async function renewSecondFactors(
  desk: WithStore & WithSeal,
  actor: Actor,
): Promise<{ renewed: number; unreadable: string[] }> {
  const unreadable: string[] = [];
  const entry = (count: number) => ({
    action: "second-factor.renew",
    object: "all",
    detail: { renewed: count },
  });
  const renewed = await audited(desk, actor, entry, async (transaction) => {
    let count = 0;
    for (const { person, mail, secret } of await sealedSecondFactors(desk.store, transaction)) {
      const about = aboutSecondFactor(person);
      const text = desk.seal.open(secret, about);
      if (text === undefined) unreadable.push(`the second factor of ${mail}`);
      else if (desk.seal.isOld(secret)) {
        const of = { person, secret: desk.seal.close(text, about) };
        await keepSecondFactorSecret(desk.store, of, transaction);
        count += 1;
      }
    }
    return count;
  });
  return { renewed, unreadable };
}
