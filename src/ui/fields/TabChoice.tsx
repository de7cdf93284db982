import { Choice } from "./Choice.tsx";
import * as say from "../words.ts";

/** In which tab something opens: as the rules say, or as is set here. */
export function TabChoice(props: {
  value: "same" | "new" | undefined;
  onChange: (value: "same" | "new" | undefined) => void;
}) {
  return (
    <Choice
      label={say.tab}
      value={props.value ?? "rules"}
      options={[
        { value: "rules", word: say.tabByTheRules },
        { value: "same", word: say.sameTab },
        { value: "new", word: say.newTab },
      ]}
      onChange={(value) => props.onChange(value === "rules" ? undefined : value)}
    />
  );
}
