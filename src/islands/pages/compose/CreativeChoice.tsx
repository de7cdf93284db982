import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Creative, PlacedCreative } from "../../../core/creatives/creative.ts";
import type { Site } from "../../../core/sites/site.ts";
import { asking } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** A creative that was chosen for the place in the text, ready to stand there. */
export type ChosenCreative = PlacedCreative & { creative: string };

/** Programs' text links and banners, a key away from the caret, the marked words or the picture. */
export function CreativeChoice(props: {
  site: Site;
  pageId: string;
  /** Saves the draft: the label is made from its path as it is saved. */
  save: () => Promise<boolean>;
  onChosen: (chosen: ChosenCreative) => void;
}) {
  const { site, pageId, save, onChosen } = props;
  const [open, setOpen] = useState(false);
  const creatives = useQuery({
    ...asking("GET /sites/:site/creatives", { site: site.id }),
    select: ({ items }) => items,
    enabled: open,
  });
  const place = useMutation({
    mutationFn: async ({ id }: Creative) => {
      await save();
      const body = { page: pageId };
      const placed = await api("POST /sites/:site/creatives/:id/place", { site: site.id, id, body });
      return { ...placed, creative: id };
    },
    onSuccess: onChosen,
  });
  if (!open)
    return (
      <button
        type="button"
        className="min-h-6 justify-self-start text-sm text-accent underline underline-offset-2"
        onClick={() => setOpen(true)}
      >
        {say.putInACreativeOfAProgram}
      </button>
    );
  return (
    <div className="grid gap-1 text-sm">
      {creatives.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(creatives.error)}
        </p>
      ) : null}
      {creatives.isSuccess && creatives.data.length === 0 ? (
        <p className="text-quiet">{say.noCreativeIsKeptYetOfA}</p>
      ) : null}
      <ul aria-label={say.creatives} className="grid max-h-44 gap-0.5 overflow-auto">
        {creatives.data?.map((creative) => (
          <li key={creative.id}>
            <button
              type="button"
              className="flex w-full items-center gap-2 rounded px-1 py-0.5 text-left hover:bg-wash focus:bg-wash disabled:opacity-60"
              disabled={creative.fault !== null || place.isPending}
              title={creative.fault ?? undefined}
              onClick={() => place.mutate(creative)}
            >
              {creative.picture && creative.filled ? (
                <img
                  src={creative.picture.src}
                  alt=""
                  className="h-7 w-12 rounded-sm border border-line object-contain"
                  referrerPolicy="no-referrer"
                />
              ) : null}
              <span className="truncate">{creative.name}</span>
              <span className="ml-auto shrink-0 text-quiet">{creative.program.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {place.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(place.error)}
        </p>
      ) : null}
    </div>
  );
}
