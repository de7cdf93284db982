import { useEffect, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { RouteFindings } from "../../routes/form/RouteFindings.tsx";
import { shortHome, useRouteCheck } from "../../routes/form/use-route-check.ts";
import { useCreateRoute } from "../../routes/use-routes.ts";
import { messageOf } from "../../../ui/client/api.ts";

/** A short link from where the address was pasted: the first suggestion stands ready, Enter makes and copies it. */
export function ShortLinkMaker({
  site,
  destination,
  slug = "",
  onDone,
}: {
  site: Site;
  destination: string;
  /** What it is to be called, instead of the first suggestion. */
  slug?: string;
  onDone: () => void;
}) {
  const home = shortHome(site);
  const [address, setAddress] = useState(home.prefix + slug);
  const [title, setTitle] = useState("");
  const check = useRouteCheck(site, {
    kind: "short",
    address,
    host: home.host,
    destination,
    title,
    replacesPage: false,
  });
  const create = useCreateRoute(site);
  const first = check?.suggestions[0]?.address;
  useEffect(() => {
    if (first && address === home.prefix) setAddress(first);
    // Only the first suggestion is taken over; from then on the field is the person's.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [first]);
  const fault = create.isError
    ? messageOf(create.error)
    : address.length > home.prefix.length
      ? check?.errors.find(({ path }) => path === "address")?.message
      : undefined;

  return (
    <form
      aria-label="New short link"
      className="mt-3 grid gap-2 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate({ kind: "short", address, host: home.host, destination, title }, { onSuccess: onDone });
      }}
    >
      <div className="grid gap-2 sm:grid-cols-2">
        <FieldRow
          label={`Short address on ${new URL(home.url).host}`}
          error={fault}
          hint={
            !fault && address.length > home.prefix.length && check ? (
              <>
                <span>{address} is free</span>
                {check.spoken ? <span className="block">Say: “{check.spoken}”</span> : null}
              </>
            ) : undefined
          }
        >
          {(attributes) => (
            <input
              {...attributes}
              autoFocus
              className="field font-mono text-sm"
              value={address}
              onChange={(event) => setAddress(event.target.value)}
            />
          )}
        </FieldRow>
        <FieldRow label="Title">
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
      {check ? <RouteFindings.Suggestions check={check} chosen={address} onPick={setAddress} /> : null}
      <div className="flex items-center gap-2">
        <button className="action action-main" disabled={create.isPending || fault !== undefined}>
          Make and copy
        </button>
        <a
          className="text-sm text-accent underline"
          href={`/${site.key}/routes?open=new-short&to=${encodeURIComponent(destination)}`}
        >
          with all settings
        </a>
      </div>
    </form>
  );
}
