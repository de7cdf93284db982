import type { Actor } from "../../core/people/actor.ts";
import { isRowId } from "../../store/ground/row-ids.ts";
import { RULES_A_VERSION } from "../../store/sites/bin.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid, notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { readVersion } from "./versions.ts";
import { currentRules, replaceRules } from "./rules.ts";

/** Puts a rule that an earlier set had back to its place, under another name where one is given. Throws a 422 where its name is taken. */
export async function restoreRule(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  name: string | undefined,
): Promise<void> {
  const at = isRowId(id) ? Number(id) : 0;
  const [without, place] = [Math.floor(at / RULES_A_VERSION), at % RULES_A_VERSION];
  if (without < 2) throw notFound("This rule");
  const rule = (await readVersion(desk, site, String(without - 1))).rules[place];
  if (!rule) throw notFound("This rule");
  const { rules, version } = await currentRules(desk, site);
  const back = { ...rule, name: name ?? rule.name };
  if (rules.some((one) => one.name === back.name))
    throw invalid([{ path: "address", message: "Another rule has this name by now; give it another." }]);
  await replaceRules(desk, actor, site, version, rules.toSpliced(place, 0, back));
}
