import { useMutation } from "@tanstack/react-query";
import { useCallback } from "react";
import type { FrontState } from "../../../core/origin/origin.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { keyOf, queries } from "../../../ui/client/queries.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { notify } from "../../../ui/notices/notices.ts";
import * as say from "../frame-words.ts";
import { PointAtArea } from "./PointAtArea.tsx";

/** Which page of the origin serves pages of ours as a frame, and where in it their content stands. */
export function FrameForm({ site, front }: { site: Site; front: FrontState }) {
  const { frame } = front;
  const keep = (state: FrontState): void => {
    queries.setQueryData(keyOf("GET /sites/:site/origin/front", { site: site.id }), state);
    notify(state.frame ? say.framed : say.unframed);
  };
  const form = useSavedForm({
    values: { path: frame?.path ?? "/", selector: frame?.selector ?? "" },
    save: ({ path, selector }) =>
      api("PUT /sites/:site/origin/frame", { site: site.id, body: { frame: { path, selector } } }),
    onSaved: keep,
    fieldOf: (path) => path.replace(/^frame\./, ""),
    kept: { key: `frame:${site.id}`, base: JSON.stringify(frame) },
  });
  const look = useMutation({
    mutationFn: (path: string) =>
      api("POST /sites/:site/origin/frame/look", { site: site.id, body: { path } }),
    onError: (error) => form.setError("path", { message: messageOf(error) }),
  });
  const drop = useMutation({
    mutationFn: () => api("PUT /sites/:site/origin/frame", { site: site.id, body: { frame: null } }),
    onSuccess: keep,
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const chosen = form.watch("selector");
  const { setValue } = form;
  const choose = useCallback(
    (selector: string) => setValue("selector", selector, { shouldDirty: true, shouldValidate: true }),
    [setValue],
  );
  return (
    <Form
      of={form}
      label={say.frame}
      needs="owner"
      className="grid gap-3 rounded border border-line bg-sheet p-4 grid-cols-[minmax(0,1fr)]"
      actions={
        <div className="flex flex-wrap gap-2">
          <SaveButton of={form} isPlain>
            {say.useIt}
          </SaveButton>
          {frame ? (
            <button
              type="button"
              className="action action-plain"
              disabled={drop.isPending}
              onClick={() => drop.mutate()}
            >
              {say.noFrame}
            </button>
          ) : null}
        </div>
      }
    >
      <div>
        <h2 className="font-semibold">{say.frame}</h2>
        <p className="text-sm text-quiet">{frame ? say.isFramed(frame.path) : say.whatAFrameIs}</p>
      </div>
      <div
        className={
          look.data
            ? "grid items-start gap-x-8 gap-y-3 grid-cols-[minmax(0,1fr)] lg:grid-cols-[22rem_minmax(0,1fr)]"
            : "max-w-[22rem]"
        }
      >
        <div className="grid gap-3 grid-cols-[minmax(0,1fr)]">
          <TextField name="path" label={say.page} mono />
          <button
            type="button"
            className="action justify-self-start py-0.5"
            disabled={look.isPending}
            onClick={() => {
              form.clearErrors();
              look.mutate(form.getValues("path"));
            }}
          >
            {say.showItsParts}
          </button>
          {look.data ? (
            <fieldset className="grid gap-1.5">
              <legend className="mb-1 text-sm font-medium">{say.whereDoesItsTextStand}</legend>
              {look.data.areas.map(({ selector, words, begins }) => (
                <label key={selector} className="grid grid-cols-[1.7rem_minmax(0,1fr)] text-sm">
                  <input
                    type="radio"
                    name="area"
                    className="mt-1 size-4 justify-self-start"
                    checked={chosen === selector}
                    onChange={() => choose(selector)}
                  />
                  <span className="min-w-0">
                    <span className="font-mono wrap-anywhere">{selector}</span>{" "}
                    <span className="text-quiet">
                      {say.wordsIn(words)} {begins ? `“${begins}…”` : ""}
                    </span>
                  </span>
                </label>
              ))}
              {look.data.areas.length === 0 ? <p className="text-sm text-warn">{say.noAreas}</p> : null}
            </fieldset>
          ) : null}
          <TextField name="selector" label={say.contentArea} hint={say.suchAsMain} mono />
        </div>
        {look.data ? (
          <PointAtArea site={site} path={look.variables} selector={chosen} onChoose={choose} />
        ) : null}
      </div>
    </Form>
  );
}
