import { Link2 } from "lucide-react";
import { useEffect, useState } from "react";
import type { Site } from "../../../../core/sites/site.ts";
import { TextField } from "../../../../ui/form/fields.tsx";
import { LiveForm } from "../../../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../../../ui/form/use-live-form.ts";
import { RouteFindings } from "../../../routes/form/RouteFindings.tsx";
import { shortHome, useRouteCheck } from "../../../routes/form/use-route-check.ts";
import { useCreateRoute } from "../../../routes/use-routes.ts";
import { messageOf } from "../../../../ui/client/api.ts";
import * as say from "../../words.ts";

/** A short link for the address that is being linked, without leaving the composer; the link then leads through it. */
export function ShortenHere(props: {
  site: Site;
  destination: string;
  title: string;
  /** What it is to be called, instead of the first suggestion. */
  slug: string;
  onMade: (url: string) => void;
}) {
  const { site, destination, title } = props;
  const home = shortHome(site);
  const [open, setOpen] = useState(false);
  const form = useLiveForm({ values: { address: home.prefix + props.slug } });
  const address = form.watch("address");
  const setAddress = (next: string): void => form.setValue("address", next, { shouldDirty: true });
  const check = useRouteCheck(site, {
    kind: "short",
    address: open ? address : "",
    host: home.host,
    destination: open ? destination : "",
    title,
    replacesPage: false,
  });
  const create = useCreateRoute(site);
  const first = open ? check?.suggestions[0]?.address : undefined;
  useEffect(() => {
    if (first && address === home.prefix) setAddress(first);
    // Only the first suggestion is taken over; from then on the field is the person's.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [first]);
  if (!open) {
    return (
      <button type="button" className="action" autoFocus={props.slug !== ""} onClick={() => setOpen(true)}>
        <Link2 size={14} aria-hidden /> {say.shortenIt}
      </button>
    );
  }
  const typed = address.length > home.prefix.length;
  const fault = create.isError
    ? messageOf(create.error)
    : typed
      ? check?.errors.find(({ path }) => path === "address")?.message
      : undefined;
  const make = (): void =>
    create.mutate(
      { kind: "short", address, host: home.host, destination, title },
      { onSuccess: (route) => props.onMade(route.url) },
    );
  return (
    <div className="grid w-full gap-2 rounded border border-line p-2">
      <LiveForm of={form}>
        <TextField
          name="address"
          label={say.shortAddressOn(new URL(home.url).host)}
          mono
          autoFocus
          error={fault}
          hint={!fault && typed && check?.spoken ? say.isFreeSay(address, check.spoken) : undefined}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            event.preventDefault();
            if (typed && !fault) make();
          }}
        />
      </LiveForm>
      {check ? <RouteFindings.Suggestions check={check} chosen={address} onPick={setAddress} /> : null}
      <button
        type="button"
        className="action justify-self-start"
        disabled={create.isPending || !typed || fault !== undefined}
        onClick={make}
      >
        {say.makeAndUseIt}
      </button>
    </div>
  );
}
