import { ExternalLink, X } from "lucide-react";
import { useState, type KeyboardEvent } from "react";
import type { HeadingAnchor } from "../../../core/pages/body/headings.ts";
import { deliveredTag } from "../../../core/links/delivered-tag.ts";
import type { Site } from "../../../core/sites/site.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import { Form } from "../../../ui/form/Form.tsx";
import { OtherReadings } from "../../../ui/links/OtherReadings.tsx";
import { ProgramHere } from "../../programs/ProgramHere.tsx";
import type { PageFields } from "../rope/use-delivered.ts";
import { AttributeChoices } from "./AttributeChoices.tsx";
import { Delivered, Gone, KindLine, ReadAs } from "./ComposerParts.tsx";
import { CreativeChoice, type ChosenCreative } from "./CreativeChoice.tsx";
import { DestinationField } from "./destination/DestinationField.tsx";
import type { LinkAt, LinkAttributes } from "./editor-links.ts";
import { RepairNotes } from "./destination/RepairNotes.tsx";
import { ShortenHere } from "./destination/ShortenHere.tsx";
import { useLinkFields } from "./use-link-fields.ts";
import { WordFields } from "./WordFields.tsx";
import * as say from "../words.ts";

/** Makes, changes or removes one link, beside its words or picture. Enter sets it, Escape leaves it as it was. */
export function LinkComposer(props: {
  site: Site;
  at: LinkAt;
  page: PageFields;
  /** The page's id, for the label of a tracked link. */
  pageId: string;
  /** Saves the draft: labels are made from its path as it is saved. */
  save: () => Promise<boolean>;
  headings: readonly HeadingAnchor[];
  onCreative: (chosen: ChosenCreative) => void;
  onSet: (link: LinkAttributes & { words: string }) => void;
  onRemove: () => void;
  onClose: () => void;
}) {
  const { site, at } = props;
  const fields = useLinkFields(site, at, props.page, props.headings, set);
  const { form, pasted, setPasted, address, repaired, judged, link, label } = fields;
  const filled = fillAddress(address, site.variables);
  const [slug, setSlug] = useState("");
  const tried = form.formState.isSubmitted;
  function set(): void {
    if (repaired.ok && !at.gone) props.onSet({ ...link, words: label });
  }
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    props.onClose();
  };
  const refusal =
    !repaired.ok && (tried || (pasted.trim() !== "" && !fields.isSearching))
      ? repaired.reason.message
      : undefined;
  return (
    <div className="rounded border border-accent bg-sheet p-3 shadow-xl" onKeyDown={onKeyDown}>
      <Form
        of={form}
        label={at.link ? say.changeLink : say.newLink}
        className="grid grid-cols-[minmax(0,1fr)] gap-2.5"
      >
        {at.gone ? <Gone at={at} /> : null}
        <DestinationField
          value={pasted}
          found={fields.offered}
          error={refusal}
          hint={
            judged ? (
              <KindLine judged={judged} address={filled} />
            ) : fields.foundNothing ? (
              say.noPageShortLinkFileOrHeading
            ) : fields.isSearching ? (
              say.understoodAsWordsToLookFor
            ) : undefined
          }
          onChange={setPasted}
          onPick={(destination) => setPasted(destination.address)}
        >
          {pasted.trim() !== "" ? <ReadAs text={pasted} onRead={setPasted} /> : null}
          <OtherReadings others={repaired.others} onMeant={setPasted} />
        </DestinationField>
        <RepairNotes repaired={repaired} address={address} />
        {address ? (
          <ProgramHere
            key={address}
            site={site}
            address={judged?.ends ?? filled}
            page={props.pageId}
            save={props.save}
            onTracked={(built) => {
              setPasted(built.address);
              setSlug(built.slug);
            }}
          />
        ) : null}
        {address && !(at.picture && address === at.link?.href) ? null : (
          <CreativeChoice site={site} pageId={props.pageId} save={props.save} onChosen={props.onCreative} />
        )}
        <WordFields fields={fields} isPicture={at.picture} />
        <AttributeChoices
          resolved={judged?.resolved}
          override={fields.override}
          onChange={fields.setOverride}
        />
        {judged ? (
          <Delivered tag={deliveredTag({ ...link, href: filled, words: label }, judged.resolved)} />
        ) : null}
        <div className="sticky bottom-0 -mx-3 -mb-3 flex flex-wrap items-center gap-2 rounded-b border-t border-line bg-sheet px-3 py-2">
          <button type="submit" className="action action-main" disabled={at.gone}>
            {say.setLink}
          </button>
          {repaired.ok ? (
            <a className="action" href={tryAddress(site, filled)} target="_blank" rel="noopener noreferrer">
              {say.tryIt} <ExternalLink size={14} aria-hidden />
            </a>
          ) : null}
          {repaired.ok && judged?.kind === "external" ? (
            <ShortenHere
              key={address}
              site={site}
              destination={filled}
              title={fields.words || fields.title}
              slug={slug}
              onMade={setPasted}
            />
          ) : null}
          {at.link && !at.gone ? (
            <button type="button" className="action action-plain text-bad" onClick={props.onRemove}>
              {say.removeLink}
            </button>
          ) : null}
          <button
            type="button"
            className="action action-plain ml-auto px-1"
            aria-label={say.closeWithoutChanging}
            onClick={props.onClose}
          >
            <X size={16} aria-hidden />
          </button>
        </div>
      </Form>
    </div>
  );
}

// A path of the site means its primary host, not the workspace.
function tryAddress(site: Site, address: string): string {
  const home = site.hosts.find(({ role }) => role === "primary")!.url;
  return address.startsWith("/") ? new URL(address, home).href : address;
}
