import { KeysHelp } from "../keys/KeysHelp.tsx";
import { Notices } from "../notices/Notices.tsx";

/** What may come to lie above any screen: notices, and what the keys do here. */
export function Overlays() {
  return (
    <>
      <Notices />
      <KeysHelp />
    </>
  );
}
