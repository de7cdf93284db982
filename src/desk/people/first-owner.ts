import type { WithStore } from "../ground/parts.ts";
import { addPerson } from "./people.ts";
import { newSecret } from "./secrets.ts";
import { allPeople } from "../../store/people/people.ts";

/** Gives an installation without demo its first person, with a password that is printed this once. */
export async function firstOwner(desk: WithStore): Promise<string[]> {
  if ((await allPeople(desk.store)).length > 0) return [];
  const email = "owner@maprope.example";
  const password = newSecret().slice(0, 20);
  await addPerson(desk, { email, name: "Owner", role: "owner", password });
  return [`Sign in     ${email}   ${password}   (shown this once)`];
}
