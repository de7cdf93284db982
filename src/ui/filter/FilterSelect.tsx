import { Select } from "../fields/Select.tsx";
import { useAddressState } from "../client/url-state.ts";

/** One thing that a list can be narrowed by; what is chosen stands in the screen's address. */
export function FilterSelect(props: {
  name: string;
  label: string;
  every: string;
  options: readonly (readonly [value: string, word: string])[];
}) {
  const [value, set] = useAddressState(props.name);
  // An address may name what is in no list (any more): it is shown as it is written.
  const isUnknown = value !== "" && !props.options.some(([key]) => key === value);
  return (
    <Select
      aria-label={props.label}
      className={`w-auto max-w-36 py-1 text-sm ${value ? "border-accent font-medium" : "text-quiet"}`}
      value={value}
      onChange={(event) => set(event.target.value)}
      options={[["", props.every], ...props.options, ...(isUnknown ? [[value, value] as const] : [])]}
    />
  );
}
