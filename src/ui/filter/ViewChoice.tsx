import { Choice } from "../fields/Choice.tsx";
import { useAddressState } from "../client/url-state.ts";

/** How a list is looked at, one of a few; what is chosen stands in the screen's address, the usual one by its absence. */
export function ViewChoice(props: {
  name: string;
  label: string;
  /** What is shown while the address says nothing, or nothing that there is. */
  usual: string;
  options: readonly (readonly [value: string, word: string])[];
}) {
  const { name, label, usual, options } = props;
  const [value, set] = useAddressState(name);
  return (
    <Choice
      label={label}
      value={options.some(([one]) => one === value) ? value : usual}
      options={options.map(([one, word]) => ({ value: one, word }))}
      onChange={(chosen) => set(chosen === usual ? "" : chosen)}
    />
  );
}
