import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect } from "react";
import { FormProvider, useForm, useWatch } from "react-hook-form";
import type { Route, RouteKind } from "../../../core/routes/route.ts";
import type { Site } from "../../../core/sites/site.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { useKeptForm } from "../../../ui/client/kept-state.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { useChangeRoute, useCreateRoute } from "../use-routes.ts";
import { AnswerFields } from "./AnswerFields.tsx";
import { EVERY_HOST, initialValues, inputOf, routeFormSchema, type RouteFormValues } from "./form-values.ts";
import { MoreFields } from "./MoreFields.tsx";
import { RouteBench } from "./RouteBench.tsx";
import { RouteFindings } from "./RouteFindings.tsx";
import { useOutsideTitle, useRouteCheck } from "./use-route-check.ts";
import { WhenFields } from "./WhenFields.tsx";
import { WhereFields } from "./WhereFields.tsx";
import { messageOf, ApiProblem } from "../../../ui/client/api.ts";

/** Makes or edits a short link, a redirect or a gone route. The address is checked live against what exists. */
export function RouteForm(props: {
  site: Site;
  kind: RouteKind;
  route?: Route;
  start: { destination: string; address: string };
  onSaved: (route: Route) => void;
}) {
  const { site, kind, route } = props;
  const form = useForm<RouteFormValues>({
    resolver: zodResolver(routeFormSchema),
    defaultValues: initialValues(site, kind, route, props.start),
  });
  const from = route?.id ?? `${kind} ${props.start.destination} ${props.start.address}`;
  const forget = useKeptForm(form, `route:${site.id}:${from}`, String(route?.version ?? 0));
  const values = useWatch({ control: form.control }) as RouteFormValues;
  const host = values.host === EVERY_HOST ? null : values.host;
  const check = useRouteCheck(site, {
    id: route?.id,
    kind,
    match: values.match,
    address: values.address,
    aliases: values.aliases.split(/\s+/).filter(Boolean),
    host,
    destination: values.destination,
    title: values.title,
    replacesPage: values.replacesPage,
  });
  const create = useCreateRoute(site);
  const change = useChangeRoute(site);
  const { errors, dirtyFields } = form.formState;
  const untitled = !route && !dirtyFields.title;
  const title = useOutsideTitle(site, check?.destination ?? null, untitled);
  useEffect(() => {
    if (untitled && title) form.setValue("title", title);
  }, [title, untitled, form]);

  const save = form.handleSubmit(async (entered) => {
    const input = inputOf(kind, entered);
    try {
      const saved = route
        ? await change.mutateAsync({ route, change: input })
        : await create.mutateAsync(input);
      forget();
      if (route) notify(`Saved ${saved.address}`);
      props.onSaved(saved);
    } catch (error) {
      if (error instanceof ApiProblem) {
        for (const { path, message } of error.errors) form.setError(fieldOf(path), { message });
      }
      form.setError("root", { message: messageOf(error) });
    }
  });
  const replacing =
    check?.errors.some(({ message }) => message.includes("replaces the page")) || values.replacesPage;

  return (
    <FormProvider {...form}>
      <form className="grid gap-3" onSubmit={(event) => void save(event)} noValidate>
        <WhereFields site={site} kind={kind} route={route} check={check} start={props.start} />
        {check && !route && values.match === "exact" ? (
          <RouteFindings.Suggestions
            check={check}
            chosen={values.address}
            onPick={(address) =>
              form.setValue("address", address, { shouldDirty: true, shouldValidate: true })
            }
          />
        ) : null}
        {check ? (
          <RouteFindings
            check={check}
            onFix={(fix) => form.setValue("destination", fix, { shouldDirty: true })}
          />
        ) : null}
        {replacing ? (
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" {...form.register("replacesPage")} /> This route replaces the page
          </label>
        ) : null}
        <FieldRow
          label="Title"
          error={errors.title?.message}
          hint={title && values.title === title ? "As the page there calls itself" : undefined}
        >
          {(attributes) => (
            <input
              {...attributes}
              {...form.register("title")}
              className="field"
              placeholder="What you will look for it by"
            />
          )}
        </FieldRow>
        {kind === "gone" ? null : <AnswerFields />}
        <WhenFields kind={kind} />
        <MoreFields site={site} kind={kind} check={check} />
        {kind === "short" ? null : <RouteBench site={site} kind={kind} id={route?.id} values={values} />}
        {errors.root ? (
          <p role="alert" className="text-bad">
            {errors.root.message}
          </p>
        ) : null}
        <div className="flex gap-2">
          <button className="action action-main" disabled={form.formState.isSubmitting}>
            {route
              ? "Save"
              : kind === "short"
                ? "Make and copy"
                : kind === "gone"
                  ? "Make it gone"
                  : "Make redirect"}
          </button>
          {route ? null : <span className="self-center text-sm text-quiet">Enter does the same</span>}
        </div>
      </form>
    </FormProvider>
  );
}

// The API names nested fields by their path; the form has them side by side.
function fieldOf(path: string): keyof RouteFormValues {
  if (path === "notice.seconds") return "noticeSeconds";
  if (path.startsWith("notice")) return "noticeText";
  if (path.startsWith("robots")) return "noindex";
  return (path.split(".")[0] || "address") as keyof RouteFormValues;
}
