import { allPeople } from "../../store/people/people.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid } from "../ground/problem.ts";

/** Throws a 422 at `name` or `mail` where somebody else has them: work is told by names, and addresses sign in. */
export async function refuseTaken(
  desk: WithStore,
  { id, name, email }: { id?: string; name: string; email: string },
): Promise<void> {
  const others = (await allPeople(desk.store)).filter((other) => other.id !== id);
  const errors = [
    ...(others.some((other) => other.name.toLowerCase() === name.toLowerCase())
      ? [{ path: "name", message: "Somebody else has this name; work is told by it." }]
      : []),
    ...(others.some((other) => other.email === email)
      ? [{ path: "mail", message: "Somebody else signs in with this address." }]
      : []),
  ];
  if (errors.length > 0) throw invalid(errors);
}
