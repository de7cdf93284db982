import { useId, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import * as say from "../words.ts";

/** Leads to a page as readers would get it changed, and as it is there, whatever is set. */
export function WithAndWithout({ site }: { site: Site }) {
  const id = useId();
  const [path, setPath] = useState("/");
  const host = site.hosts.find(({ role }) => role === "primary");
  if (!host) return null;
  const asked = (how: "changed" | "untouched"): string => {
    const page = new URL(`/${path.replace(/^[\\/]+/, "")}`, host.url);
    page.searchParams.set("maprope", how);
    return page.href;
  };
  return (
    <section
      aria-label={say.seeAPage}
      className="grid gap-2 border-t border-line pt-4 grid-cols-[minmax(0,1fr)]"
    >
      <h2 className="font-semibold">{say.seeAPage}</h2>
      <label htmlFor={id} className="text-sm font-medium">
        {say.pathOfIt}
      </label>
      <input
        id={id}
        className="field font-mono"
        value={path}
        onChange={({ target }) => setPath(target.value)}
      />
      <p className="flex flex-wrap gap-2">
        <a className="action" href={asked("changed")} target="_blank" rel="noopener">
          {say.withChanges}
        </a>
        <a className="action" href={asked("untouched")} target="_blank" rel="noopener">
          {say.withoutUs}
        </a>
      </p>
    </section>
  );
}
