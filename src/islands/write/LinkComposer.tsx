import { ExternalLink, X } from "lucide-react";
import { useState, type KeyboardEvent } from "react";
import { looksLikeAddress, repairAddress } from "../../core/address/repair.ts";
import { deliveredTag } from "../../core/links/delivered-tag.ts";
import type { Site } from "../../core/objects/site.ts";
import { formatOverride, parseOverride, type Override } from "../../core/rules/override.ts";
import { FieldRow } from "../../ui/FieldRow.tsx";
import { KIND_WORD, Knot } from "../../ui/Knot.tsx";
import { AttributeChoices } from "./AttributeChoices.tsx";
import { DestinationPicks } from "./DestinationPicks.tsx";
import type { LinkAt, LinkAttributes } from "./editor-links.ts";
import { useJudge, type PageFields } from "./use-delivered.ts";

/** Makes, changes or removes one link, beside its words. Enter sets it, Escape leaves it as it was. */
export function LinkComposer(props: {
  site: Site;
  at: LinkAt;
  page: PageFields;
  onSet: (link: LinkAttributes & { words: string }) => void;
  onRemove: () => void;
  onClose: () => void;
}) {
  const { site, at } = props;
  const [pasted, setPasted] = useState(at.address ?? at.link?.href ?? "");
  const [words, setWords] = useState(at.words);
  const [title, setTitle] = useState(at.link?.title ?? "");
  const [override, setOverride] = useState<Override>(() => parseOverride(at.link?.override ?? "").override);
  const [tried, setTried] = useState(false);

  const repaired = repairAddress(pasted, {
    privateHosts: [location.host],
    ownHosts: site.hosts.map(({ name }) => name),
  });
  const address = repaired.ok ? repaired.address : "";
  const link: LinkAttributes = {
    href: address,
    title: title.trim() || null,
    rel: at.link?.rel ?? null,
    target: at.link?.target ?? null,
    override: formatOverride(override) ?? null,
  };
  const judged = useJudge(site, props.page, address ? [address] : [])(link);
  const label = words.trim() || (repaired.ok ? bareWords(address) : "");
  const searching = !repaired.ok && pasted.trim().length > 1 && !looksLikeAddress(pasted);

  const set = (): void => {
    setTried(true);
    if (repaired.ok) props.onSet({ ...link, words: label });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === "Escape") {
      event.stopPropagation();
      props.onClose();
    }
  };
  const refusal =
    !repaired.ok && (tried || (pasted.trim() !== "" && !searching)) ? repaired.reason.message : undefined;

  return (
    <form
      aria-label={at.link ? "Change link" : "New link"}
      ref={showWhole}
      className="scroll-my-16 rounded border border-accent bg-sheet p-3 shadow-xl"
      onKeyDown={onKeyDown}
      onSubmit={(event) => {
        event.preventDefault();
        set();
      }}
    >
      <div className="grid gap-2.5">
        <FieldRow
          label="Where it leads"
          error={refusal}
          hint={
            repaired.ok && judged ? (
              <KindLine kind={judged.kind} ends={judged.ends} address={address} />
            ) : undefined
          }
        >
          {(attributes) => (
            <input
              {...attributes}
              autoFocus
              className="field font-mono text-sm"
              placeholder="Paste an address, or type a page's title"
              value={pasted}
              onChange={(event) => setPasted(event.target.value)}
              onFocus={(event) => event.target.select()}
            />
          )}
        </FieldRow>
        {searching ? <DestinationPicks site={site} text={pasted} onPick={setPasted} /> : null}
        {repaired.ok && (repaired.repairs.length > 0 || repaired.warnings.length > 0) ? (
          <ul aria-label="What was mended" className="text-sm">
            {repaired.repairs.length > 0 ? (
              <li className="mb-0.5 break-all font-mono text-xs">{address}</li>
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
        ) : null}
        <div className="grid grid-cols-2 gap-2">
          <FieldRow label="Words">
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                value={words}
                placeholder={label}
                onChange={(event) => setWords(event.target.value)}
              />
            )}
          </FieldRow>
          <FieldRow label="Title on hover">
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                value={title}
                onChange={(event) => setTitle(event.target.value)}
              />
            )}
          </FieldRow>
        </div>
        <AttributeChoices resolved={judged?.resolved} override={override} onChange={setOverride} />
        {judged ? (
          <div>
            <p className="text-sm font-medium">Delivered</p>
            <code
              data-testid="delivered"
              className="block rounded bg-sunk px-2 py-1.5 font-mono text-xs break-all"
            >
              {deliveredTag({ ...link, words: label }, judged.resolved)}
            </code>
          </div>
        ) : null}
        <div className="flex flex-wrap items-center gap-2">
          <button type="submit" className="action action-main">
            Set link
          </button>
          {repaired.ok ? (
            <a className="action" href={address} target="_blank" rel="noopener noreferrer">
              Try it <ExternalLink size={14} aria-hidden />
            </a>
          ) : null}
          {at.link ? (
            <button type="button" className="action action-plain text-bad" onClick={props.onRemove}>
              Remove link
            </button>
          ) : null}
          <button
            type="button"
            className="action action-plain ml-auto px-1"
            aria-label="Close without changing"
            onClick={props.onClose}
          >
            <X size={16} aria-hidden />
          </button>
        </div>
      </div>
    </form>
  );
}

// Beside words at the end of the screen the panel would open, or grow, below it.
function showWhole(form: HTMLFormElement | null): (() => void) | undefined {
  if (!form) return undefined;
  const observer = new ResizeObserver(() => form.scrollIntoView({ block: "nearest" }));
  observer.observe(form);
  return () => observer.disconnect();
}

function KindLine({ kind, ends, address }: { kind: keyof typeof KIND_WORD; ends: string; address: string }) {
  return (
    <span className={`flex items-center gap-1.5 ${kind === "broken" ? "text-bad" : ""}`}>
      <Knot kind={kind} size={14} /> {KIND_WORD[kind]}
      {ends !== address ? <span className="truncate"> that ends at {ends}</span> : null}
    </span>
  );
}

function bareWords(address: string): string {
  return address.replace(/^(?:https?:\/\/|mailto:|tel:)(?:www\.)?/, "").replace(/\/$/, "");
}
