import { useQuery } from "@tanstack/react-query";
import type { Edge } from "../../../core/routes/edge/edge.ts";
import type { Site } from "../../../core/sites/site.ts";
import { messageOf } from "../../../ui/client/api.ts";
import { asking } from "../../../ui/client/queries.ts";
import { count, when } from "../../../ui/format/format.ts";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import * as say from "./words.ts";

const REFRESH_MS = 5_000;
/** Whoever writes an edge is heard of every ten seconds. */
const SILENT_MS = 60_000;
const CLOCK_MS = 5_000;

/** The web servers that answer for us, how old what they answer is, and what they leave to us. */
export function EdgesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="routes/edges" />
      <p className="mb-4 max-w-3xl text-quiet">{say.whatEdgesAre}</p>
      <Edges site={site} />
    </Screen>
  );
}

function Edges({ site }: { site: Site }) {
  const edges = useQuery({
    ...asking("GET /sites/:site/edges", { site: site.id }),
    refetchInterval: REFRESH_MS,
  });
  if (edges.isError) return <p className="text-bad">{messageOf(edges.error)}</p>;
  if (!edges.data) return <p className="text-quiet">{say.fetching}</p>;
  if (edges.data.items.length === 0) return <NoEdges />;
  return (
    <ul className="grid gap-4 grid-cols-[minmax(0,1fr)] lg:grid-cols-2">
      {edges.data.items.map((edge) => (
        <li key={edge.name} className="rounded border border-line bg-sheet p-4">
          <OneEdge edge={edge} />
        </li>
      ))}
    </ul>
  );
}

function NoEdges() {
  return (
    <div className="max-w-3xl rounded border border-dashed border-line p-6">
      <p className="mb-3">{say.noEdgesYet}</p>
      <p className="mb-1 text-sm text-quiet">{say.howToBegin}</p>
      <pre className="mb-3 text-sm whitespace-pre-wrap wrap-anywhere">
        {
          "maprope edge nginx /srv/edge --name quay --upstream http://10.0.0.5:4601\nmaprope collect /srv/edge/clicks.log --name quay"
        }
      </pre>
      <p className="text-sm text-quiet">{say.thenInclude}</p>
    </div>
  );
}

function OneEdge({ edge }: { edge: Edge }) {
  const { name, fault, left, collectFault, unreadable, waitingBytes, clockMs } = edge;
  const seconds = Math.round(Math.abs(clockMs) / 1000);
  return (
    <>
      <h2 className="mb-2 font-semibold">{name}</h2>
      <dl className="grid gap-x-4 gap-y-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-[7rem_minmax(0,1fr)]">
        <dt className="text-quiet">{say.answers}</dt>
        <dd>
          {say.routes(edge.routes)}, <Age edge={edge} />
          {fault === "" ? null : <p className="text-bad wrap-anywhere">{fault}</p>}
        </dd>
        <dt className="text-quiet">{say.leavesToUs}</dt>
        <dd>
          {left.length === 0 ? say.nothing : null}
          <ul>
            {left.map(({ why, routes }) => (
              <li key={why}>{say.left(count(routes), why)}</li>
            ))}
          </ul>
        </dd>
        <dt className="text-quiet">{say.clicks}</dt>
        <dd>
          {edge.collectedAt === null
            ? say.neverCollected
            : say.collectedAt(edge.collected, when(edge.collectedAt))}
          {waitingBytes > 0 ? (
            <p className="text-warn">{say.waiting(count(Math.ceil(waitingBytes / 1024)))}</p>
          ) : null}
          {unreadable > 0 ? <p className="text-warn">{say.unreadable(unreadable)}</p> : null}
          {collectFault === "" ? null : <p className="text-bad wrap-anywhere">{collectFault}</p>}
          {Math.abs(clockMs) > CLOCK_MS ? (
            <p className="text-warn">{say.clockIsOff(seconds, clockMs > 0)}</p>
          ) : null}
        </dd>
      </dl>
    </>
  );
}

function Age({ edge: { writtenAt, seenAt, isBehind } }: { edge: Edge }) {
  if (writtenAt === null) return <span className="text-warn">{say.neverWritten}</span>;
  const isSilent = seenAt !== null && Date.now() - Date.parse(seenAt) > SILENT_MS;
  return (
    <>
      {isBehind ? (
        <span className="text-warn">{say.isBehind(when(writtenAt))}</span>
      ) : (
        <span className="text-good">{say.upToDate(when(writtenAt))}</span>
      )}
      {isSilent ? <p className="text-warn">{say.notHeardOf(when(seenAt))}</p> : null}
    </>
  );
}
