import { reaches } from "../../core/people/roles.ts";
import { frameData } from "../frame/frame.ts";
import type { Role } from "../../core/people/choices.ts";

/** What something in a screen asks for: the least role, and whether it is done while a site rests, too. */
export interface Needed {
  role: Role;
  evenAtRest?: boolean;
}

/**
 * Whether whoever looks may do here what needs that role. The frame of the workspace says what they may (`data-role`)
 * and whether the site rests (`data-rests`); the API refuses in any case. What is only a button says its need itself,
 * as `data-needs`.
 */
export function mayHere({ role, evenAtRest }: Needed): boolean {
  const { role: own, rests } = frameData();
  if (rests !== undefined && !evenAtRest && role !== "reader") return false;
  // Before anybody is signed in, and on what is everybody's own, nothing is locked.
  return own === undefined || reaches(own as Role, role);
}
