import { useQuery } from "@tanstack/react-query";
import type { SnippetOutcome } from "../../../core/creatives/snippet.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import * as say from "../words.ts";

const REST_MS = 200;

/** What is found in a snippet while it stands in its field; undefined while nothing is in it. */
export function useSnippetReading(html: string): SnippetOutcome | undefined {
  const settled = useDebounced(html.trim(), REST_MS);
  return useQuery({
    queryKey: ["snippet", settled],
    queryFn: async () => (await import("../../../core/creatives/snippet.ts")).readSnippet(settled),
    enabled: settled !== "",
    gcTime: 0,
  }).data;
}

/** A snippet as it was understood, with one step for each placeholder that only its program knows. */
export function SnippetReading(props: {
  snippet: Extract<SnippetOutcome, { ok: true }>["snippet"];
  onReplace: (placeholder: string, by: string) => void;
}) {
  const { kind, href, words, picture, pixel, leftOut, unfilled } = props.snippet;
  return (
    <div role="group" aria-label={say.whatIsInIt} className="grid gap-1.5 rounded bg-wash p-2 text-sm">
      {picture ? (
        <img
          src={picture.src}
          alt={picture.alt}
          width={picture.width ?? undefined}
          height={picture.height ?? undefined}
          className="max-h-32 max-w-full object-contain object-left"
        />
      ) : null}
      <p>
        {kind === "banner" ? say.aBanner : say.aTextLink(words)}
        {picture?.width && picture.height ? `, ${picture.width} × ${picture.height}` : ""}
        {pixel ? say.aDotOfOnePixelCountsWho : ""}
        {leftOut.length > 0 ? (
          <span className="text-warn">{say.willBeLeftOut(leftOut.join(" and "))}</span>
        ) : (
          ""
        )}
        .
      </p>
      <AddressText address={href} />
      {unfilled.map((placeholder) => (
        <p key={placeholder} className="flex flex-wrap items-center gap-2">
          <span>
            {say.whatIs} <code>{placeholder}</code>?
          </span>
          <button
            type="button"
            className="action py-0.5 text-sm"
            onClick={() => props.onReplace(placeholder, "{id}")}
          >
            {say.ourAccount}
          </button>
          <button
            type="button"
            className="action py-0.5 text-sm"
            onClick={() => props.onReplace(placeholder, "{sub}")}
          >
            {say.theLabelOfThePlace}
          </button>
        </p>
      ))}
    </div>
  );
}
