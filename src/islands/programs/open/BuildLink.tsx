import { useMutation, useQuery } from "@tanstack/react-query";
import { Copy, Footprints, Link2 } from "lucide-react";
import { useState } from "react";
import type { Program } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { copyText } from "../../../ui/keys/copy.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { ShortLinkMaker } from "../../links/paste/ShortLinkMaker.tsx";
import { asking } from "../../../ui/client/queries.ts";
import { api, messageOf, ApiProblem } from "../../../ui/client/api.ts";

/** Any product address of the program in, its tracked link out; one more step makes it short. */
export function BuildLink({ site, program }: { site: Site; program: Program }) {
  const [destination, setDestination] = useState("");
  const [page, setPage] = useState("");
  const [text, setText] = useState("");
  const [making, setMaking] = useState(false);
  const pages = useQuery({
    ...asking("GET /sites/:site/pages", { site: site.id, query: { limit: 500, sort: "title" } }),
    select: ({ items }) => items,
  });
  const build = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/programs/:id/link", {
        site: site.id,
        id: program.id,
        body: {
          destination,
          ...(page ? { page } : {}),
          ...(text ? { text } : {}),
        },
      }),
    onSuccess: ({ address }) => {
      setMaking(false);
      void copyText(address);
    },
  });
  const errors = build.error instanceof ApiProblem ? build.error.errors : [];
  const fault = (field: string): string | undefined => errors.find(({ path }) => path === field)?.message;
  const built = build.data;
  return (
    <section aria-label="Build a link" className="grid gap-2 border-b border-line pb-3">
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          build.mutate();
        }}
      >
        <FieldRow label="Build a tracked link to" error={fault("destination")}>
          {(attributes) => (
            <input
              {...attributes}
              className="field font-mono text-sm"
              placeholder={`Paste a product’s address on ${program.domains[0]}`}
              value={destination}
              onChange={(event) => setDestination(event.target.value)}
            />
          )}
        </FieldRow>
        <div className="grid gap-2 sm:grid-cols-[1fr_1fr_auto] sm:items-end">
          <FieldRow label="It will stand on">
            {(attributes) => (
              <select
                {...attributes}
                className="field"
                value={page}
                onChange={(event) => setPage(event.target.value)}
              >
                <option value="">no page of ours</option>
                {pages.data?.map(({ id, title }) => (
                  <option key={id} value={id}>
                    {title}
                  </option>
                ))}
              </select>
            )}
          </FieldRow>
          <FieldRow label="Label" error={fault("subId")}>
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                placeholder="free text, if the pattern has {text}"
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
            )}
          </FieldRow>
          <button className="action action-main" disabled={build.isPending || destination.trim() === ""}>
            Build and copy
          </button>
        </div>
      </form>
      {build.isError && !fault("destination") && !fault("subId") ? (
        <p role="alert" className="text-bad">
          {fault("program") ?? messageOf(build.error)}
        </p>
      ) : null}
      {built ? (
        <div className="grid gap-2 rounded bg-wash p-2" aria-live="polite">
          <p className="break-all">
            <AddressText address={built.address} most={400} />
          </p>
          <p className="text-sm text-quiet">
            {built.subId ? (
              <>
                The report will name it <code>{built.subId}</code>.
              </>
            ) : (
              "It has no label of its own."
            )}
          </p>
          {built.warnings.map((warning) => (
            <p key={warning} className="text-sm text-warn">
              {warning}
            </p>
          ))}
          <div className="flex flex-wrap gap-2">
            <button className="action" onClick={() => void copyText(built.address)}>
              <Copy size={14} aria-hidden /> Copy
            </button>
            <button key={built.address} autoFocus className="action" onClick={() => setMaking(true)}>
              <Link2 size={14} aria-hidden /> Make it short
            </button>
            <a className="action" href={`/${site.key}/trace?of=${encodeURIComponent(built.address)}`}>
              <Footprints size={14} aria-hidden /> See whether the ID arrives
            </a>
          </div>
          {making ? (
            <ShortLinkMaker
              site={site}
              destination={built.address}
              slug={built.slug}
              onDone={() => setMaking(false)}
            />
          ) : null}
        </div>
      ) : null}
    </section>
  );
}
