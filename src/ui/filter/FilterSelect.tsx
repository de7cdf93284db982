import { useAddressState } from "../client/url-state.ts";

/** One thing that a list can be narrowed by; what is chosen stands in the screen's address. */
export function FilterSelect(props: {
  name: string;
  label: string;
  every: string;
  options: readonly (readonly [value: string, word: string])[];
}) {
  const [value, set] = useAddressState(props.name);
  return (
    <select
      aria-label={props.label}
      className={`field w-auto max-w-36 py-1 text-sm ${value ? "border-accent font-medium" : "text-quiet"}`}
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      <option value="">{props.every}</option>
      {props.options.map(([key, word]) => (
        <option key={key} value={key}>
          {word}
        </option>
      ))}
      {value && !props.options.some(([key]) => key === value) ? <option value={value}>{value}</option> : null}
    </select>
  );
}
