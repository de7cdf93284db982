import { useCallback } from "react";
import type { Site } from "../../core/sites/site.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useSelection } from "../../ui/table/use-selection.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import { FacetPanel } from "./FacetPanel.tsx";
import { LedgerBar, LedgerTools } from "./LedgerBar.tsx";
import { MarkedLinks } from "./many/MarkedLinks.tsx";
import { later } from "../../ui/frame/later.tsx";
import { LedgerTable } from "./table/LedgerTable.tsx";
import { useLedgerFilter, useLinkFacets, useLinkGroups, useLinks, type LedgerAsked } from "./use-ledger.ts";
import { messageOf } from "../../ui/client/api.ts";
import * as say from "./words.ts";

const OpenLink = later(async () => (await import("./open/OpenLink.tsx")).OpenLink);
const GroupTable = later(async () => (await import("./GroupTable.tsx")).GroupTable);

/** Every link on the site, as written and as readers get it. */
export function LedgerScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Ledger site={site} />
    </Screen>
  );
}

function Ledger({ site }: { site: Site }) {
  const asked = useLedgerFilter();
  const [by] = useAddressState("by");
  const facets = useLinkFacets(site, asked);
  return (
    <>
      <div className="flex flex-wrap items-start gap-3">
        <SectionTabs site={site} tab="ledger" />
        <LedgerTools site={site} asked={asked} />
      </div>
      {by === "host" || by === "page" ? (
        <Groups site={site} asked={asked} by={by} facets={<FacetPanel facets={facets.data} />} />
      ) : (
        <Links site={site} asked={asked} facets={<FacetPanel facets={facets.data} />} />
      )}
    </>
  );
}

const BESIDE = "grid grow items-start gap-5 grid-cols-[minmax(0,1fr)] lg:grid-cols-[13rem_minmax(0,1fr)]";

function Groups(props: { site: Site; asked: LedgerAsked; by: "host" | "page"; facets: React.ReactNode }) {
  const { site, asked, by } = props;
  const total = useLinkGroups(site, asked, by).data?.pages[0]?.total;
  return (
    <>
      <LedgerBar total={total} />
      <div className={BESIDE}>
        <Narrowing>{props.facets}</Narrowing>
        <GroupTable site={site} asked={asked} by={by} />
      </div>
    </>
  );
}

function Links({ site, asked, facets }: { site: Site; asked: LedgerAsked; facets: React.ReactNode }) {
  const [sort, setSort] = useAddressState("sort");
  const [open] = useAddressState("open");
  const links = useLinks(site, asked, sort);
  const items = links.data?.pages.flatMap((page) => page.items) ?? [];
  const total = links.data?.pages[0]?.total;
  const selection = useSelection(items.map(({ id }) => id));
  const opened = items.find(({ id }) => id === open);
  const { fetchNextPage, hasNextPage, isFetchingNextPage } = links;
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [fetchNextPage, hasNextPage, isFetchingNextPage]);
  return (
    <>
      <LedgerBar total={total} />
      {links.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(links.error)}
        </p>
      ) : null}
      <div
        className={
          opened
            ? "grid grow items-start gap-5 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_25rem] xl:grid-cols-[12rem_minmax(0,1fr)_26rem]"
            : BESIDE
        }
      >
        <div className={opened ? "lg:max-xl:hidden" : ""}>
          <Narrowing>{facets}</Narrowing>
        </div>
        <div className="min-w-0">
          {links.isSuccess && items.length === 0 ? (
            <Empty searching={Object.keys(asked).some((name) => name !== "edition")} />
          ) : (
            <LedgerTable
              site={site}
              links={items}
              openId={opened ? open : ""}
              sort={sort}
              setSort={setSort}
              selection={selection}
              more={more}
            />
          )}
          {isFetchingNextPage ? <p className="py-2 text-sm text-quiet">{say.fetchingMore}</p> : null}
          <MarkedLinks site={site} selection={selection} asked={asked} total={total ?? 0} />
        </div>
        {opened ? <OpenLink key={opened.id} site={site} link={opened} /> : null}
      </div>
    </>
  );
}

// On a narrow screen what it can be narrowed by waits behind a word.
function Narrowing({ children }: { children: React.ReactNode }) {
  return (
    <>
      <div className="max-lg:hidden">{children}</div>
      <details className="lg:hidden">
        <summary className="text-sm text-quiet">{say.narrowTheLinks}</summary>
        {children}
      </details>
    </>
  );
}

function Empty({ searching }: { searching: boolean }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">{searching ? say.noLinkIsLeftByTheseWords : say.thereAreNoLinksYet}</p>
      <p className="text-quiet">{searching ? say.removeOneOfThemOrShowAll : say.everyLinkOfAPageAShared}</p>
    </div>
  );
}
