import { useState } from "react";
import type { BinItem } from "../../core/sites/history.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, ApiProblem } from "../../ui/client/api.ts";
import { TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import * as say from "./words.ts";

/** What has an address or a name of its own, which may be taken by now. */
const ADDRESSED: ReadonlySet<BinItem["kind"]> = new Set(["page", "route", "file", "rule", "view"]);

/** Brings one thing back; where its address was given away meanwhile, another one is asked for. */
export function BringBack(props: {
  site: Site;
  item: BinItem;
  /** Its address is asked for. */
  isOpen: boolean;
  onOpen: () => void;
  onBack: () => void;
}) {
  const { site, item, isOpen } = props;
  const [fault, setFault] = useState<string>();
  const own = item.kind === "page" || item.kind === "file" ? item.address : item.name;
  const form = useSavedForm({
    values: { address: "" },
    save: ({ address }) =>
      api("POST /sites/:site/bin/:item/restore", {
        site: site.id,
        item: item.id,
        body: address ? { address } : {},
      }),
    onSaved: props.onBack,
    onRefused(error) {
      if (error instanceof ApiProblem) setFault(error.message);
      if (ADDRESSED.has(item.kind)) props.onOpen();
    },
    // Whatever is wrong with it, it is the address that can be changed here.
    fieldOf: () => "address",
  });
  return (
    <Form
      of={form}
      needs="editor"
      label={say.restore(item.name)}
      className="inline-flex max-w-80 flex-wrap items-start justify-end gap-2 max-sm:max-w-44"
    >
      {isOpen ? (
        <TextField
          name="address"
          label={say.anotherFor(
            item.kind === "rule" || item.kind === "view" ? say.name : say.address,
            item.name,
          )}
          isLabelHidden
          placeholder={own}
          mono
          className="w-64 py-0.5 text-left text-sm max-sm:w-40"
        />
      ) : null}
      {!isOpen && fault ? <span className="text-sm text-bad">{fault}</span> : null}
      <SaveButton of={form} isPlain className="py-0.5">
        {say.restore2}
        <span className="sr-only"> {item.name}</span>
      </SaveButton>
    </Form>
  );
}
