import type { Site } from "../../core/sites/site.ts";
import * as say from "./words.ts";

/** What stands on screens about pages elsewhere while all pages of the site are written here. */
export function NoOrigin({ site }: { site: Site }) {
  return (
    <p className="rounded border border-dashed border-line p-8 text-center text-quiet">
      {say.pagesAreWrittenHere}{" "}
      <a className="text-accent underline" href={`/${site.key}/origin`}>
        {say.nameWhereTheyStand}
      </a>
    </p>
  );
}
