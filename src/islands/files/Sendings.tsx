import type { Sending } from "./use-sending.ts";
import * as say from "./words.ts";

/** Files on their way up, and those that were refused. */
export function Sendings({ of }: { of: readonly Sending[] }) {
  return of.map(({ name, share, failure }) => (
    <p key={name} role={failure ? "alert" : "status"} className="mb-1 flex items-center gap-3 text-sm">
      <span className="font-medium">{name}</span>
      {failure ? (
        <span className="text-bad">{failure}</span>
      ) : (
        <progress aria-label={say.uploadOf(name)} max={1} value={share} />
      )}
    </p>
  ));
}
