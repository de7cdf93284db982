import { ROLES, type Role } from "../../core/people/choices.ts";
import { Select } from "../../ui/fields/Select.tsx";

/** What somebody may do, to be chosen in a row of a table; `none` names what having no role is called. */
export function RoleSelect(props: {
  label: string;
  value: Role | null;
  none?: string;
  disabled?: boolean;
  onChange: (role: Role | null) => void;
}) {
  return (
    <Select
      aria-label={props.label}
      className="w-auto py-0.5 text-sm"
      value={props.value ?? ""}
      disabled={props.disabled}
      onChange={(event) => props.onChange((event.target.value || null) as Role | null)}
      options={[
        ...(props.none === undefined ? [] : [["", props.none] as const]),
        ...ROLES.map((role) => [role, role] as const),
      ]}
    />
  );
}
