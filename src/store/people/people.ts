import type { Store } from "../ground/store.ts";
import type { Actor } from "../../core/people/actor.ts";

/** Whose session this is, by the hash of its token; none when it has ended. */
export function actorsOfSession(store: Store, of: { hash: string }): Promise<Actor[]> {
  return store.rows<Actor>(
    `SELECT p.name, p.role FROM sessions s JOIN people p ON p.id = s.person_id WHERE s.token_hash = $hash AND s.expires_at > now()`,
    of,
  );
}

/** Whose API token this is, by its hash, and notes that it was used; none when it has ended. */
export function actorsOfToken(store: Store, of: { hash: string }): Promise<Actor[]> {
  return store.rows<Actor>(
    `WITH used AS (UPDATE tokens SET last_used_at = now() WHERE token_hash = $hash AND (expires_at IS NULL OR expires_at > now())
       RETURNING name, role) SELECT 'token ' || name AS name, role FROM used`,
    of,
  );
}
