import type { Role } from "../src/core/people/choices.ts";
import { addPerson } from "../src/desk/people/people.ts";
import type { WithStore } from "../src/desk/ground/parts.ts";
import { allPeople, removePeople } from "../src/store/people/people.ts";

export const DEMO_SIGN_IN = { email: "mara@lowlantern.example", password: "lantern-on-the-lawn" };
export const DEMO_SECOND_SIGN_IN = { email: "tobias@lowlantern.example", password: "hedgehogs-at-midnight" };

const DEMO_PEOPLE: readonly { email: string; password: string; name: string; role: Role }[] = [
  { ...DEMO_SIGN_IN, name: "Mara Quill", role: "owner" },
  { ...DEMO_SECOND_SIGN_IN, name: "Tobias Fenn", role: "editor" },
];
export const DEMO_MAILS = DEMO_PEOPLE.map(({ email }) => email);

/** Takes the demo's people away: their passwords are known to everybody, and the demo does not run any more. */
export async function takeDemoPeople(desk: WithStore): Promise<number> {
  return removePeople(desk.store, DEMO_MAILS);
}

/** Lets those of them in who are not there. */
export async function letDemoPeopleIn(desk: WithStore): Promise<void> {
  const there = new Set((await allPeople(desk.store)).map(({ email }) => email));
  for (const person of DEMO_PEOPLE) if (!there.has(person.email)) await addPerson(desk, person);
}
