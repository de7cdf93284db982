import type { PersonRow } from "../../store/ground/models.ts";
import { forgiveAttempts } from "../../store/people/attempts.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid } from "../ground/problem.ts";
import { verifyPassword } from "./secrets.ts";
import { countPassword, inTurn } from "./throttle.ts";

/**
 * Asks for the password that somebody has who is signed in already: whoever sits down at a session that was left open must
 * not be able to try passwords as fast as they like. Throws a 422 at `path`, or a 429.
 */
export async function checkPassword(
  desk: WithStore,
  person: PersonRow,
  password: string,
  path: string,
): Promise<void> {
  if (password === "")
    throw invalid([{ path, message: "Type the password that you have: it is really you who changes this." }]);
  const counted = await countPassword(desk, person.id);
  if (!(await inTurn(() => verifyPassword(password, person.passwordHash))))
    throw invalid([{ path, message: "That is not your password." }]);
  await forgiveAttempts(desk.store, counted);
}
