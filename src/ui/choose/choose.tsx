import { whenSeen } from "../frame/later.tsx";
import type { ComboboxProps } from "./Combobox.tsx";
import type { MultiChoiceProps } from "./MultiChoice.tsx";

// Screens without a choice in sight do not carry the library that makes them.
/** One of many, found by typing; it is fetched when it is first in sight. */
export const ChooseOne = whenSeen<ComboboxProps>(
  async () => (await import("./Combobox.tsx")).default,
  (props) => <input {...props.attributes} className={`field ${props.className ?? ""}`} disabled />,
);

/** Several of many, found by typing; it is fetched when it is first in sight. */
export const ChooseMany = whenSeen<MultiChoiceProps>(
  async () => (await import("./MultiChoice.tsx")).default,
  (props) => <input {...props.attributes} className="field" disabled />,
);
