import { useState } from "react";
import { ChooseOne } from "../choose/choose.tsx";
import type { Option } from "../choose/options.ts";
import { useAddressState } from "../client/url-state.ts";

/** One thing of many that a list is narrowed by; what is chosen stands in the screen's address. Opened, it is a field to type in. */
export function FilterChoice(props: {
  name: string;
  label: string;
  every: string;
  options: readonly Option[];
}) {
  const { name, label, every, options } = props;
  const [value, set] = useAddressState(name);
  const [isOpen, open] = useState(false);
  const word = value === "" ? every : (options.find((one) => one.value === value)?.word ?? value);
  if (isOpen)
    return (
      <ChooseOne
        attributes={{ "aria-label": label }}
        className="w-44 text-sm"
        autoFocus
        value={value}
        none={every}
        options={options}
        onChange={(chosen) => set(chosen)}
        onLeave={() => open(false)}
      />
    );
  return (
    <button
      type="button"
      aria-label={`${label}: ${word}`}
      aria-haspopup="listbox"
      className={`field flex w-auto max-w-36 items-center gap-1.5 py-1 text-sm ${value ? "border-accent font-medium" : "text-quiet"}`}
      onClick={() => open(true)}
    >
      <span className="truncate">{word}</span> <span aria-hidden>▾</span>
    </button>
  );
}
