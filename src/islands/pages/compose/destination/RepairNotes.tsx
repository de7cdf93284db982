import type { Repaired } from "../../../../core/address/address.ts";
import * as say from "../../words.ts";

/** What was corrected in a pasted address, and what deserves a second look. */
export function RepairNotes({ repaired, address }: { repaired: Repaired; address?: string }) {
  if (!repaired.ok || repaired.repairs.length + repaired.warnings.length === 0) return null;
  return (
    <ul aria-label={say.whatWasCorrected} className="text-sm">
      {address !== undefined && repaired.repairs.length > 0 ? (
        <li className="mb-0.5 font-mono text-xs wrap-anywhere">{address}</li>
      ) : null}
      {repaired.repairs.map(({ message }) => (
        <li key={message} className="text-good">
          {message}
        </li>
      ))}
      {repaired.warnings.map(({ message }) => (
        <li key={message} className="text-warn">
          {message}
        </li>
      ))}
    </ul>
  );
}
