import { NAVIGATION_KINDS } from "../../core/navigation/choices.ts";
import type { FlatItem } from "../../core/navigation/branches.ts";
import type { NavigationItem } from "../../core/navigation/navigation.ts";
import type { PageSummary } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import { TabChoice } from "../../ui/fields/TabChoice.tsx";
import { ChooseField } from "../../ui/form/choose-fields.tsx";
import { SelectField, TextField } from "../../ui/form/fields.tsx";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";
import { KIND_WORDS } from "./kind-words.ts";
import { NavigationAddress } from "./NavigationAddress.tsx";
import * as say from "./words.ts";

/** What an entry of the navigation says and where it leads, to be changed. */
export function EntryFields(props: {
  site: Site;
  item: FlatItem;
  pages: readonly PageSummary[];
  onChange: (part: Partial<NavigationItem>) => void;
}) {
  const { site, item, pages, onChange } = props;
  const byPage = item.kind === "page" || (item.kind === "heading" && item.address === undefined);
  const form = useLiveForm({
    values: { label: item.label, kind: item.kind, page: item.page ?? "" },
    onChange: ({ label, kind, page }) =>
      onChange(
        kind === item.kind
          ? { label, page: page || undefined }
          : { label, kind, page: undefined, address: undefined },
      ),
  });
  return (
    <LiveForm of={form}>
      <div className="grid gap-3 border-t border-line p-3 grid-cols-[minmax(0,1fr)] md:grid-cols-2">
        <TextField name="label" label={say.label} autoFocus />
        <SelectField
          name="kind"
          label={say.kind}
          options={NAVIGATION_KINDS.map((kind) => [kind, KIND_WORDS[kind]])}
        />
        {byPage ? (
          <ChooseField
            name="page"
            label={item.kind === "heading" ? say.landingPageOfTheHeadingNoneIt : say.page}
            placeholder={say.chooseAPage}
            none={item.kind === "heading" ? say.none : undefined}
            options={pages.map(({ id, title, path, status }) => ({
              value: id,
              word: title,
              note: status === "draft" ? `${path} (draft)` : path,
            }))}
          />
        ) : null}
        {item.kind !== "page" && item.page === undefined ? (
          <NavigationAddress site={site} item={item} onChange={(address) => onChange({ address })} />
        ) : null}
        <div className="self-end">
          <TabChoice value={item.target} onChange={(target) => onChange({ target })} />
        </div>
      </div>
    </LiveForm>
  );
}
