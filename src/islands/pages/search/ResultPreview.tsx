import { addressOnSite } from "./search-typed.ts";
import type { Site } from "../../../core/sites/site.ts";
import * as say from "../words.ts";

/** About how much of each is shown before it is cut. */
const TITLE_SIGNS = 60;
const DESCRIPTION_SIGNS = 160;

/** How a page may look where somebody finds it: a line, where it is, and what it is about. */
export function ResultPreview(props: {
  site: Site;
  address: string;
  title: string;
  description: string;
  picture: string;
}) {
  const { site, address, title, description, picture } = props;
  return (
    <figure className="grid self-start gap-1 border-l-4 border-hemp bg-paper px-3 py-2">
      <figcaption className="text-xs text-quiet">{say.aboutHowItIsFound}</figcaption>
      {picture ? (
        <img
          src={addressOnSite(site, picture)}
          alt=""
          className="aspect-[1.91] w-full border border-line object-cover"
        />
      ) : null}
      <span className="font-mono text-xs wrap-anywhere text-quiet">{address}</span>
      <strong>{cut(title, TITLE_SIGNS)}</strong>
      <span className="text-sm text-quiet">
        {description ? cut(description, DESCRIPTION_SIGNS) : say.withoutADescriptionAPieceOfThe}
      </span>
    </figure>
  );
}

function cut(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, text.lastIndexOf(" ", most) + 1 || most).trim()} …`;
}
