import type { Placement } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import { ChooseManyField } from "../../ui/form/choose-fields.tsx";
import { ChoiceField } from "../../ui/form/fields.tsx";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";
import { useCategories, usePageOptions } from "./known-pages.ts";

/** Where a shared block stands, and on which pages. */
export function PlacementFields(props: {
  site: Site;
  placement: Placement;
  onChange: (placement: Placement) => void;
}) {
  const { site, placement, onChange } = props;
  const { shown } = placement;
  const form = useLiveForm<Placement>({ values: placement, onChange });
  const pages = usePageOptions(site, "path");
  const categories = useCategories(site);
  return (
    <LiveForm of={form}>
      <ChoiceField
        name="place"
        label="Place"
        options={[
          { value: "footer", word: "Footer" },
          { value: "sidebar", word: "Beside the text" },
        ]}
      />
      <ChoiceField
        name="shown"
        label="Shown on"
        options={[
          { value: "all", word: "All pages" },
          { value: "pages", word: "Chosen pages" },
          { value: "categories", word: "Categories" },
        ]}
      />
      {shown === "all" ? null : (
        <div className="w-96 max-w-full">
          {shown === "pages" ? (
            <ChooseManyField
              name="on"
              label="Paths; * stands for anything"
              isFree
              mono
              between={/[\s,]/}
              placeholder="/reviews/*, /resources"
              options={pages.options}
              onType={pages.find}
            />
          ) : (
            <ChooseManyField
              name="on"
              label="Categories"
              isFree
              placeholder="Reviews, Instruments"
              options={categories}
            />
          )}
        </div>
      )}
    </LiveForm>
  );
}
