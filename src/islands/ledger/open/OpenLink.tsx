import { useQuery } from "@tanstack/react-query";
import { ArrowUpRight } from "lucide-react";
import type { ReactNode } from "react";
import { deliveredTag } from "../../../core/links/delivered-tag.ts";
import { isElsewhere, isPagePlace, type LedgerLink } from "../../../core/ledger/ledger.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import { FINDING_WORD } from "../../../ui/links/link-words.ts";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { useTitle } from "../../../ui/frame/use-title.ts";
import { SidePanel } from "../../../ui/panel/SidePanel.tsx";
import { WhyList } from "../../../ui/links/WhyList.tsx";
import { wordsOf, wordsPlace } from "../link-place.ts";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const PLACE_CALLED = {
  page: say.thePage,
  block: say.theBlock,
  navigation: say.theNavigation,
  read: say.thePageThere,
  repeated: say.thePageThere,
} as const;

/** One link of the ledger: as it is written, as readers get it, and why. */
export function OpenLink({ site, link }: { site: Site; link: LedgerLink }) {
  const { stored, delivered, override } = link;
  const why = useQuery(
    asking("POST /sites/:site/attributes", {
      site: site.id,
      body: {
        href: link.href,
        rel: stored.rel,
        target: stored.target,
        override: override ?? undefined,
        page: link.page || undefined,
        category: link.category || undefined,
        anchor: link.anchorKind,
      },
    }),
  );
  const tag = (look: typeof stored): string => deliveredTag({ href: link.href, words: link.anchor }, look);
  useTitle(wordsOf(link));
  return (
    <SidePanel
      label={say.theLink(wordsOf(link))}
      of={link.id}
      className="sticky top-36 z-20 max-h-[calc(100dvh-10rem)] overflow-auto lg:top-16 lg:z-auto lg:max-h-[calc(100vh-5rem)]"
      title={
        <span className="flex items-start gap-2">
          <Knot kind={link.kind} size={20} />
          <span className="min-w-0">
            {wordsOf(link)}
            <span className="block text-sm font-normal text-quiet">
              {KIND_WORD[link.kind]} · {isPagePlace(link.place) ? `${link.title}, ${link.page}` : link.title}
              {link.onPages > 0 ? `, ${say.onPages(count(link.onPages))}` : ""}
            </span>
          </span>
        </span>
      }
      onClose={() => setAddressState({ open: "" })}
    >
      <div className="grid gap-3">
        <a
          className="action justify-self-start"
          href={wordsPlace(site, link)}
          {...(isElsewhere(link.place) ? { target: "_blank", rel: "noreferrer" } : {})}
        >
          {say.toTheWordsIn(PLACE_CALLED[link.place])} <ArrowUpRight size={14} aria-hidden />
        </a>
        <Part title={say.readersGet}>
          <Source text={tag(delivered)} />
        </Part>
        {link.wanted ? (
          <Part title={say.rulesAskFor}>
            <Source text={tag(link.wanted)} />
          </Part>
        ) : null}
        {override || stored.rel.length > 0 || stored.target ? (
          <Part title={say.asWritten}>
            <Source text={tag(stored)} />
            {override ? <p className="text-sm text-accent">{say.setByHand(override)}</p> : null}
          </Part>
        ) : (
          <p className="text-sm text-quiet">{say.writtenWithoutRelAndTargetAllOf}</p>
        )}
        <Part title={say.why}>
          {why.isError ? <p className="text-bad">{messageOf(why.error)}</p> : null}
          {why.data ? (
            <WhyList
              trace={why.data.trace.map(({ beat, ...one }) => ({
                ...one,
                overridden: beat,
                change: why.data.otherwise[one.attribute] ?? "",
              }))}
            />
          ) : null}
        </Part>
        {link.destination !== link.href ? (
          <Part title={say.endsAt}>
            <AddressText address={link.destination} most={120} />
          </Part>
        ) : null}
        {link.shortLink ? (
          <Part title={link.shortLink.used ? say.throughTheShortLink : say.aShortLinkExists}>
            <a className="hover:underline" href={`/${site.key}/routes?open=${link.shortLink.id}`}>
              <AddressText address={link.shortLink.url} most={60} />
            </a>
            {link.clicks !== null ? (
              <span className="text-sm text-quiet"> {say.clicksFromHere(count(link.clicks))}</span>
            ) : null}
          </Part>
        ) : null}
        {link.programs.length > 0 ? <Part title={say.paidBy}>{link.programs.join(", ")}</Part> : null}
        {link.findings.length > 0 ? (
          <Part title={say.toLookAt}>
            <ul className="text-sm text-warn">
              {link.findings.map((code) => (
                <li key={code}>{FINDING_WORD[code]}</li>
              ))}
            </ul>
          </Part>
        ) : null}
      </div>
    </SidePanel>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h3 className="text-sm font-medium text-quiet">{title}</h3>
      {children}
    </section>
  );
}

function Source({ text }: { text: string }) {
  return (
    <pre className="rounded bg-sunk p-2 font-mono text-xs wrap-anywhere whitespace-pre-wrap" tabIndex={0}>
      {text}
    </pre>
  );
}
