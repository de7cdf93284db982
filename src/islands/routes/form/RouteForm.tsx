import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect } from "react";
import { useWatch } from "react-hook-form";
import type { Route } from "../../../core/routes/route.ts";
import type { RouteKind } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { CheckField, TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
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
import * as say from "../words.ts";

/** Makes or edits a short link, a redirect or a gone route. The address is checked live against what exists. */
export function RouteForm(props: {
  site: Site;
  kind: RouteKind;
  route?: Route;
  start: { destination: string; address: string };
  onSaved: (route: Route) => void;
}) {
  const { site, kind, route } = props;
  const create = useCreateRoute(site);
  const change = useChangeRoute(site);
  const from = route?.id ?? `${kind} ${props.start.destination} ${props.start.address}`;
  const form = useSavedForm<RouteFormValues, Route>({
    values: initialValues(site, kind, route, props.start),
    resolver: zodResolver(routeFormSchema),
    save: (entered) => {
      const input = inputOf(kind, entered);
      return route ? change.mutateAsync({ route, change: input }) : create.mutateAsync(input);
    },
    onSaved: (saved) => {
      if (route) notify(say.saved(saved.address));
      props.onSaved(saved);
    },
    fieldOf,
    kept: { key: `route:${site.id}:${from}`, base: String(route?.version ?? 0) },
  });
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
  const { dirtyFields } = form.formState;
  const untitled = !route && !dirtyFields.title;
  const title = useOutsideTitle(site, check?.destination ?? null, untitled);
  useEffect(() => {
    if (untitled && title) form.setValue("title", title);
  }, [title, untitled, form]);

  const replacing =
    check?.errors.some(({ message }) => message.includes("replaces the page")) || values.replacesPage;

  return (
    <Form
      of={form}
      needs="editor"
      actions={
        <div className="flex gap-2">
          <SaveButton of={form}>
            {route
              ? say.save
              : kind === "short"
                ? say.makeAndCopy
                : kind === "gone"
                  ? say.makeItGone
                  : say.makeRedirect}
          </SaveButton>
          {route ? null : <span className="self-center text-sm text-quiet">{say.enterDoesTheSame}</span>}
        </div>
      }
    >
      <WhereFields site={site} kind={kind} route={route} check={check} start={props.start} />
      {check && !route && values.match === "exact" ? (
        <RouteFindings.Suggestions
          check={check}
          chosen={values.address}
          onPick={(address) => form.setValue("address", address, { shouldDirty: true, shouldValidate: true })}
        />
      ) : null}
      <RouteFindings
        check={check}
        onFix={(fix) => form.setValue("destination", fix, { shouldDirty: true })}
      />
      {replacing ? <CheckField name="replacesPage">{say.thisRouteReplacesThePage}</CheckField> : null}
      <TextField
        name="title"
        label={say.title}
        hint={title && values.title === title ? say.asThePageThereCallsItself : undefined}
        placeholder={say.whatYouWillLookForItBy}
      />
      {kind === "gone" ? null : <AnswerFields />}
      <WhenFields kind={kind} />
      <MoreFields site={site} kind={kind} check={check} />
      {kind === "short" ? null : <RouteBench site={site} kind={kind} id={route?.id} values={values} />}
    </Form>
  );
}

// The API names nested fields by their path; the form has them side by side.
function fieldOf(path: string): keyof RouteFormValues {
  if (path === "notice.seconds") return "noticeSeconds";
  if (path.startsWith("notice")) return "noticeText";
  if (path.startsWith("robots")) return "noindex";
  return (path.split(".")[0] || "address") as keyof RouteFormValues;
}
