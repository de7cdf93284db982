import { Choice } from "./Choice.tsx";

/** In which tab something opens: as the rules say, or as is set here. */
export function TabChoice(props: {
  value: "same" | "new" | undefined;
  onChange: (value: "same" | "new" | undefined) => void;
}) {
  return (
    <Choice
      label="Tab"
      value={props.value ?? "rules"}
      options={[
        { value: "rules", word: "Tab by the rules" },
        { value: "same", word: "Same tab" },
        { value: "new", word: "New tab" },
      ]}
      onChange={(value) => props.onChange(value === "rules" ? undefined : value)}
    />
  );
}
