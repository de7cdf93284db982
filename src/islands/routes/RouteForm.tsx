import { zodResolver } from "@hookform/resolvers/zod";
import { useForm, useWatch } from "react-hook-form";
import { z } from "zod";
import {
  ROUTE_STATUSES,
  STATUS_WORDS,
  type Route,
  type RouteInput,
  type RouteKind,
  type RouteStatus,
} from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { ApiProblem, messageOf } from "../../ui/api.ts";
import { FieldRow } from "../../ui/FieldRow.tsx";
import { tell } from "../../ui/notices.ts";
import { RouteFindings } from "./RouteFindings.tsx";
import { shortHome, useRouteCheck } from "./use-route-check.ts";
import { useChangeRoute, useCreateRoute } from "./use-routes.ts";

// What the form itself can say at once; everything else is the linter's, which asks the same schemas on the server.
const formSchema = z.object({
  destination: z.string(),
  host: z.string(),
  address: z.string().trim().min(1, "The address is missing. It starts with a slash, such as /eyepiece."),
  title: z.string(),
  status: z.string(),
  query: z.enum(["drop", "forward", "merge"]),
  aliases: z.string(),
  counted: z.boolean(),
  replacesPage: z.boolean(),
});
type Values = z.infer<typeof formSchema>;

const EVERY_HOST = "*";
const QUERY_WORDS = {
  drop: "left off",
  forward: "handed on",
  merge: "handed on, the destination's own kept",
} as const;

/** Makes or edits a short link, a redirect or a gone route. The address is checked live against what exists. */
export function RouteForm(props: {
  site: Site;
  kind: RouteKind;
  route?: Route;
  destination: string;
  onSaved: (route: Route) => void;
}) {
  const { site, kind, route } = props;
  const form = useForm<Values>({
    resolver: zodResolver(formSchema),
    defaultValues: initialValues(site, kind, route, props.destination),
  });
  const values = useWatch({ control: form.control }) as Values;
  const host = values.host === EVERY_HOST ? null : values.host;
  const check = useRouteCheck(site, {
    id: route?.id,
    kind,
    address: values.address,
    host,
    destination: values.destination,
    title: values.title,
    replacesPage: values.replacesPage,
  });
  const create = useCreateRoute(site);
  const change = useChangeRoute(site);
  const { errors } = form.formState;
  const typed = form.formState.dirtyFields;
  const found = (field: string): string | undefined =>
    check?.errors.find(({ path }) => path === field)?.message;
  const addressFault =
    errors.address?.message ?? (values.address.trim().length > 1 ? found("address") : undefined);
  const destinationFault =
    errors.destination?.message ?? (values.destination.trim() !== "" ? found("destination") : undefined);

  const save = form.handleSubmit(async (entered) => {
    const input = inputOf(kind, entered);
    try {
      const saved = route
        ? await change.mutateAsync({ route, change: input })
        : await create.mutateAsync(input);
      if (route) tell(`Saved ${saved.address}`);
      props.onSaved(saved);
    } catch (error) {
      if (error instanceof ApiProblem) {
        for (const { path, message } of error.errors)
          form.setError((path.split(".")[0] ?? "address") as keyof Values, { message });
      }
      form.setError("root", { message: messageOf(error) });
    }
  });

  return (
    <form className="grid gap-3" onSubmit={(event) => void save(event)} noValidate>
      {kind === "gone" ? null : (
        <FieldRow
          label="Leads to"
          error={destinationFault}
          hint={
            check?.repairs.length
              ? `${check.repairs.join(" ")} It will lead to ${check.destination}`
              : undefined
          }
        >
          {(attributes) => (
            <input
              {...attributes}
              {...form.register("destination")}
              autoFocus={!route && props.destination === ""}
              className="field font-mono text-sm"
              placeholder={kind === "short" ? "Paste the long address" : "/new/path or https://…"}
            />
          )}
        </FieldRow>
      )}
      <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-2">
        <FieldRow label="Host" error={errors.host?.message}>
          {(attributes) => (
            <select {...attributes} {...form.register("host")} className="field">
              {site.hosts.map(({ name }) => (
                <option key={name}>{name}</option>
              ))}
              <option value={EVERY_HOST}>every host</option>
            </select>
          )}
        </FieldRow>
        <FieldRow
          label="Address"
          error={addressFault}
          hint={addressHint(
            values.address,
            Boolean(check && !addressFault && values.address !== route?.address),
          )}
        >
          {(attributes) => (
            <input
              {...attributes}
              {...form.register("address")}
              autoFocus={!route && props.destination !== ""}
              className="field font-mono text-sm"
            />
          )}
        </FieldRow>
      </div>
      {check && !route ? (
        <RouteFindings.Suggestions
          check={check}
          chosen={values.address}
          onPick={(address) => form.setValue("address", address, { shouldDirty: true, shouldValidate: true })}
        />
      ) : null}
      {check ? (
        <RouteFindings
          check={check}
          onFix={(fix) => form.setValue("destination", fix, { shouldDirty: true })}
        />
      ) : null}
      {check?.errors.some(({ message }) => message.includes("replaces the page")) || values.replacesPage ? (
        <label className="flex items-center gap-2 text-sm">
          <input type="checkbox" {...form.register("replacesPage")} /> This route replaces the page
        </label>
      ) : null}
      <FieldRow label="Title" error={errors.title?.message}>
        {(attributes) => (
          <input
            {...attributes}
            {...form.register("title")}
            className="field"
            placeholder="What you will look for it by"
          />
        )}
      </FieldRow>
      {kind === "gone" ? null : (
        <FieldRow label="Answers with" error={errors.status?.message}>
          {(attributes) => (
            <select {...attributes} {...form.register("status")} className="field">
              {ROUTE_STATUSES.filter((status) => status !== 410).map((status) => (
                <option key={status} value={status}>
                  {status}, {STATUS_WORDS[status]}
                </option>
              ))}
            </select>
          )}
        </FieldRow>
      )}
      <details className="text-sm" open={Boolean(typed.aliases || typed.query || typed.counted)}>
        <summary className="text-quiet">Other spellings, query, counting</summary>
        <div className="mt-2 grid gap-3">
          <FieldRow
            label="Other spellings people type"
            error={errors.aliases?.message}
            hint="Paths, separated by spaces"
          >
            {(attributes) => (
              <input {...attributes} {...form.register("aliases")} className="field font-mono text-sm" />
            )}
          </FieldRow>
          <FieldRow label="What stands behind ? is">
            {(attributes) => (
              <select {...attributes} {...form.register("query")} className="field">
                {Object.entries(QUERY_WORDS).map(([mode, word]) => (
                  <option key={mode} value={mode}>
                    {word}
                  </option>
                ))}
              </select>
            )}
          </FieldRow>
          <label className="flex items-center gap-2">
            <input type="checkbox" {...form.register("counted")} /> Count its clicks
          </label>
        </div>
      </details>
      {errors.root ? (
        <p role="alert" className="text-bad">
          {errors.root.message}
        </p>
      ) : null}
      <div className="flex gap-2">
        <button className="action action-main" disabled={form.formState.isSubmitting}>
          {route ? "Save" : kind === "short" ? "Make and copy" : "Make redirect"}
        </button>
        {route ? null : <span className="self-center text-sm text-quiet">Enter does the same</span>}
      </div>
    </form>
  );
}

function initialValues(site: Site, kind: RouteKind, route: Route | undefined, destination: string): Values {
  const home =
    kind === "short"
      ? shortHome(site)
      : { host: site.hosts.find(({ role }) => role === "primary")!.name, prefix: "/" };
  return {
    destination,
    host: route ? (route.host ?? EVERY_HOST) : (home.host ?? EVERY_HOST),
    address: route?.address ?? home.prefix,
    title: route?.title ?? "",
    status: String(route?.status ?? (kind === "short" ? 302 : kind === "gone" ? 410 : 301)),
    query: route?.query ?? "drop",
    aliases: route?.aliases.join(" ") ?? "",
    counted: route?.counted ?? true,
    replacesPage: route?.replacesPage ?? false,
  };
}

function inputOf(kind: RouteKind, values: Values): Partial<RouteInput> {
  return {
    kind,
    address: values.address.trim(),
    host: values.host === EVERY_HOST ? null : values.host,
    destination: kind === "gone" ? null : values.destination,
    title: values.title,
    status: Number(values.status) as RouteStatus,
    query: values.query,
    aliases: values.aliases.split(/\s+/).filter(Boolean),
    counted: values.counted,
    replacesPage: values.replacesPage,
  };
}

function addressHint(address: string, free: boolean): string | undefined {
  return free && address.trim().length > 1 ? `${address.trim()} is free` : undefined;
}
