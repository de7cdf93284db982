import { invalid } from "../ground/problem.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import { hashPassword } from "./secrets.ts";
import { inTurn } from "./throttle.ts";

/** The hash of a new password. Throws a 422 at `path` with advice when it is too easy to guess for this person. */
export async function newPasswordHash(
  desk: WithTexts,
  { name, email }: { name: string; email: string },
  password: string,
  path = "password",
): Promise<string> {
  const words = [name, email, ...name.split(/\s+/), ...email.split(/[@.]/)];
  const { advice } = await desk.texts.read({ do: "password", password, words });
  if (advice !== null) throw invalid([{ path, message: advice }]);
  return inTurn(() => hashPassword(password));
}
