import { ROLES, type Role } from "../../core/people/choices.ts";

/** What somebody may do, to be chosen in a row of a table; `none` names what having no role is called. */
export function RoleSelect(props: {
  label: string;
  value: Role | null;
  none?: string;
  disabled?: boolean;
  onChange: (role: Role | null) => void;
}) {
  return (
    <select
      aria-label={props.label}
      className="field w-auto py-0.5 text-sm"
      value={props.value ?? ""}
      disabled={props.disabled}
      onChange={(event) => props.onChange((event.target.value || null) as Role | null)}
    >
      {props.none === undefined ? null : <option value="">{props.none}</option>}
      {ROLES.map((role) => (
        <option key={role} value={role}>
          {role}
        </option>
      ))}
    </select>
  );
}
