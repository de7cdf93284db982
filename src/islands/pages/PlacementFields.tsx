import type { Placement } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import { ChooseManyField } from "../../ui/form/choose-fields.tsx";
import { ChoiceField } from "../../ui/form/fields.tsx";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";
import { useCategories, usePageOptions } from "./known-pages.ts";
import * as say from "./words.ts";

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
        label={say.place}
        options={[
          { value: "footer", word: say.footer },
          { value: "sidebar", word: say.besideTheText },
        ]}
      />
      <ChoiceField
        name="shown"
        label={say.shownOn}
        options={[
          { value: "all", word: say.allPages },
          { value: "pages", word: say.chosenPages },
          { value: "categories", word: say.categories },
        ]}
      />
      {shown === "all" ? null : (
        <div className="w-96 max-w-full">
          {shown === "pages" ? (
            <ChooseManyField
              name="on"
              label={say.pathsStandsForAnything}
              isFree
              mono
              between={/[\s,]/}
              placeholder={say.reviewsResources}
              options={pages.options}
              onType={pages.find}
            />
          ) : (
            <ChooseManyField
              name="on"
              label={say.categories}
              isFree
              placeholder={say.reviewsInstruments}
              options={categories}
            />
          )}
        </div>
      )}
    </LiveForm>
  );
}
