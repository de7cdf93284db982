import type { Role } from "./choices.ts";

/** Who acts: a person signed in, or a token. */
export interface Actor {
  name: string;
  /** What they may do on every site; while a site's call is answered, what they may do there. Null: nothing but what `sites` says. */
  role: Role | null;
  /** What they may do on single sites, by the site's id; the higher of the two counts. */
  sites?: Readonly<Record<string, Role>>;
  /** The id of the person who is signed in, and of the session; a token is nobody's person. */
  person?: string;
  session?: string;
  /** The id of the token that they came with; that of the environment has none. */
  token?: string;
  /** They may do nothing but set up the second factor that everybody needs. */
  mustSetUp?: boolean;
}

/** What an actor came with: the token, or that they signed in. Their calls are counted by it. */
export function credentialOf({ token, person, name }: Actor): string {
  if (token !== undefined) return `token ${token}`;
  return person === undefined ? name : `person ${person}`;
}
