import type { WithStore } from "../src/desk/ground/parts.ts";
import { addPerson } from "../src/desk/people/people.ts";
import { newSecret } from "../src/desk/people/secrets.ts";

/** Gives an installation without demo its first person, with a password that is printed this once. */
export async function firstOwner(desk: WithStore): Promise<string[]> {
  if ((await desk.store.people.count()) > 0) return [];
  const email = "owner@maprope.example";
  const password = newSecret().slice(0, 20);
  await addPerson(desk, { email, name: "Owner", role: "owner", password });
  return [`Sign in     ${email}   ${password}   (shown this once)`];
}
