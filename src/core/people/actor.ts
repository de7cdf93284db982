import type { Role } from "./person.ts";

/** Who acts: a person signed in, or a token. */
export interface Actor {
  name: string;
  role: Role;
}
