import type { WrittenBulk } from "../../../contract/routes/bulk.ts";
import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseField } from "../../../ui/form/choose-fields.tsx";
import { setFilters, useRouteFacets, type RouteFilterState } from "../use-route-list.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { Retarget } from "./Retarget.tsx";
import { MarkedBar } from "../../../ui/table/MarkedBar.tsx";
import type { Selection } from "../../../ui/table/use-selection.ts";
import { useBulk } from "./use-bulk.ts";
import * as say from "../words.ts";

/** What can be done with the marked routes, all at once and undone as one. */
export function SelectionBar(props: {
  site: Site;
  selection: Selection;
  filter: RouteFilterState;
  total: number;
}) {
  const { site, selection, filter, total } = props;
  const [retargeting, setRetargeting] = useState(false);
  const select = selection.all ? { filter: setFilters(filter) } : { ids: [...selection.ids] };
  const change = useBulk(site, () => {
    selection.clear();
    setRetargeting(false);
  });
  const run = (action: WrittenBulk["action"]): void => change.mutate({ ...select, action });
  return (
    <MarkedBar
      label={say.markedRoutes}
      selection={selection}
      total={total}
      actions={
        <>
          <TagForm site={site} onRun={run} />
          <button
            className="action py-0.5"
            aria-expanded={retargeting}
            onClick={() => setRetargeting(!retargeting)}
          >
            {say.changeDestinations2}
          </button>
          <button className="action py-0.5" onClick={() => run({ do: "switch", on: true })}>
            {say.switchOn}
          </button>
          <button className="action py-0.5" onClick={() => run({ do: "switch", on: false })}>
            {say.switchOff}
          </button>
          <button className="action py-0.5 text-bad" onClick={() => run({ do: "delete" })}>
            {say.deleteWord}
          </button>
        </>
      }
    >
      {retargeting ? (
        <Retarget
          site={site}
          select={select}
          busy={change.isPending}
          onRun={(find, replace) => run({ do: "retarget", find, replace })}
        />
      ) : null}
    </MarkedBar>
  );
}

/** A tag that is put on the marked routes, or taken off. */
function TagForm({ site, onRun }: { site: Site; onRun: (action: WrittenBulk["action"]) => void }) {
  const known = useRouteFacets(site).data?.tags ?? [];
  const form = useSavedForm({
    values: { tag: "" },
    save: async ({ tag }) => onRun({ do: "tag", tag: tag.trim() }),
  });
  const tag = form.watch("tag").trim();
  return (
    <Form of={form} needs="editor" className="flex gap-1">
      <ChooseField
        name="tag"
        label={say.tag}
        isLabelHidden
        className="w-36"
        placeholder={say.aTag}
        isFree
        options={known.map(({ tag: word, routes }) => ({ value: word, word, note: String(routes) }))}
      />
      <SaveButton of={form} isPlain className="py-0.5" disabled={!tag}>
        {say.addTag}
      </SaveButton>
      <button
        type="button"
        className="action py-0.5"
        disabled={!tag}
        onClick={() => onRun({ do: "untag", tag })}
      >
        {say.removeTag}
      </button>
    </Form>
  );
}
