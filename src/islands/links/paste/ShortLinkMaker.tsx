import { useEffect } from "react";
import type { FrameSite } from "../../../ui/frame/frame-site.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { RouteFindings } from "../../routes/form/RouteFindings.tsx";
import { shortHome, useRouteCheck } from "../../routes/form/use-route-check.ts";
import { useCreateRoute } from "../../routes/use-routes.ts";
import * as say from "../words.ts";

/** A short link from where the address was pasted: the first suggestion stands ready, Enter makes and copies it. */
export default function ShortLinkMaker({
  site,
  destination,
  slug = "",
  onDone,
}: {
  site: FrameSite;
  destination: string;
  /** What it is to be called, instead of the first suggestion. */
  slug?: string;
  onDone: () => void;
}) {
  const home = shortHome(site);
  const create = useCreateRoute(site);
  const form = useSavedForm({
    values: { address: home.prefix + slug, title: "" },
    save: (typed) => create.mutateAsync({ kind: "short", host: home.host, destination, ...typed }),
    onSaved: onDone,
  });
  const { setValue } = form;
  const [address, title] = form.watch(["address", "title"]);
  const check = useRouteCheck(site, {
    kind: "short",
    address,
    host: home.host,
    destination,
    title,
    replacesPage: false,
  });
  const first = check?.suggestions[0]?.address;
  useEffect(() => {
    // Only the first suggestion is taken over; from then on the field is the person's.
    if (first && form.getValues("address") === home.prefix) setValue("address", first);
  }, [first, form, home.prefix, setValue]);
  const isNamed = address.length > home.prefix.length;
  const fault = isNamed ? check?.errors.find(({ path }) => path === "address")?.message : undefined;

  return (
    <Form
      of={form}
      needs="editor"
      label={say.newShortLink}
      className="mt-3 grid gap-2 border-t border-line pt-3"
    >
      <div className="grid gap-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-2">
        <TextField
          name="address"
          label={say.shortAddressOn(new URL(home.url).host)}
          error={fault}
          mono
          autoFocus
          hint={
            !fault && isNamed && check ? (
              <>
                <span>{say.isFree(address)}</span>
                {check.spoken ? <span className="block">{say.sayWord(check.spoken)}</span> : null}
              </>
            ) : undefined
          }
        />
        <TextField name="title" label={say.title} />
      </div>
      {check ? (
        <RouteFindings.Suggestions
          check={check}
          chosen={address}
          onPick={(picked) => setValue("address", picked, { shouldDirty: true })}
        />
      ) : null}
      <div className="flex items-center gap-2">
        <SaveButton of={form} disabled={fault !== undefined}>
          {say.makeAndCopy}
        </SaveButton>
        <a
          className="text-sm text-accent underline"
          href={`/${site.key}/routes?open=new-short&to=${encodeURIComponent(destination)}`}
        >
          {say.withAllSettings}
        </a>
      </div>
    </Form>
  );
}
