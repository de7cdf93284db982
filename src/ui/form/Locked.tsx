import type { ReactNode } from "react";
import type { Role } from "../../core/people/choices.ts";
import { mayHere } from "../client/rights.ts";

/** Fields that whoever looks may not change are seen, and take nothing. */
export function Locked(props: { needs: Role; children: ReactNode }) {
  if (mayHere({ role: props.needs })) return props.children;
  return (
    <fieldset disabled data-locked className="contents">
      {props.children}
    </fieldset>
  );
}
