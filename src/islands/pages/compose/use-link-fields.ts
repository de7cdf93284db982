import { screenAddress } from "../../../ui/frame/frame.ts";
import { useEffect, useMemo, useState } from "react";
import { looksLikeAddress, repairAddress } from "../../../core/address/repair/repair.ts";
import type { HeadingAnchor } from "../../../core/pages/body/headings.ts";
import { formatOverride, parseOverride, type Override } from "../../../core/rules/override.ts";
import type { Site } from "../../../core/sites/site.ts";
import { variableNames } from "../../../core/text/variables.ts";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { useJudge, type PageFields } from "../rope/use-delivered.ts";
import type { LinkAt, LinkAttributes } from "./editor-links.ts";
import { useHomePhone } from "./destination/use-home-phone.ts";
import { useDestinations } from "./destination/use-destinations.ts";

/** What is filled in of a link, and what it is understood as. */
export function useLinkFields(
  site: Site,
  at: LinkAt,
  page: PageFields,
  headings: readonly HeadingAnchor[],
  onSet: () => void,
) {
  const form = useSavedForm({
    values: {
      pasted: at.address ?? at.link?.href ?? "",
      words: at.words,
      title: at.link?.title ?? "",
      keeps: at.link?.download !== null && at.link?.download !== undefined,
    },
    save: () => Promise.resolve(onSet()),
  });
  const { pasted, words, title, keeps } = form.watch();
  const setPasted = (text: string): void => form.setValue("pasted", text, { shouldDirty: true });
  // Until somebody writes other words here, they are those that stand in the text.
  const isWritten = form.formState.dirtyFields.words === true;
  useEffect(() => {
    if (!isWritten) form.resetField("words", { defaultValue: at.words });
  }, [form, isWritten, at.words]);
  const [override, setOverride] = useState<Override>(() => parseOverride(at.link?.override ?? "").override);
  const repaired = repairAddress(pasted, {
    privateHosts: [screenAddress().host],
    ownHosts: site.hosts.map(({ name }) => name),
    ...useHomePhone(site, pasted),
  });
  const address = repaired.ok ? withPlaces(repaired.address) : "";
  const asked = useMemo(() => (address ? [address] : []), [address]);
  const { judge } = useJudge(site, page, asked);
  const link: LinkAttributes = {
    href: address,
    title: title.trim() || null,
    rel: at.link?.rel ?? null,
    target: at.link?.target ?? null,
    download: null,
    override: formatOverride(override) ?? null,
    creative: at.link?.href === address ? at.link.creative : null,
  };
  const judged = judge({ ...link, anchor: at.picture ? "image" : "text" });
  if (keeps && judged?.kind === "file") link.download = at.link?.download ?? "";
  const isSearching = !repaired.ok && pasted.trim().length > 1 && !looksLikeAddress(pasted);
  const { found, asked: searched } = useDestinations(site, pasted, headings);
  return {
    form,
    pasted,
    setPasted,
    words,
    title,
    override,
    setOverride,
    repaired,
    address,
    link,
    judged,
    /** The words that it will have. */
    label: words.trim() || (repaired.ok && !at.picture ? bareWords(address) : ""),
    /** What is typed are words to look for. */
    isSearching,
    offered: found.filter((destination) => destination.address !== pasted),
    foundNothing: isSearching && searched && found.length === 0,
  };
}

export type LinkFields = ReturnType<typeof useLinkFields>;

// Repair percent-encodes the braces of a place that a site variable fills; they are written as people write them.
function withPlaces(address: string): string {
  return variableNames(address).reduce(
    (text, name) => text.replace(new RegExp(`%7B%7B\\s*${name}\\s*%7D%7D`, "gi"), `{{${name}}}`),
    address,
  );
}

function bareWords(address: string): string {
  return address.replace(/^(?:https?:\/\/|mailto:|tel:)(?:www\.)?/, "").replace(/\/$/, "");
}
