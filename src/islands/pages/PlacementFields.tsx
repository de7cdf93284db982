import type { Placement } from "../../core/pages/page.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";

/** Where a shared block stands, and on which pages. */
export function PlacementFields({
  placement,
  onChange,
}: {
  placement: Placement;
  onChange: (placement: Placement) => void;
}) {
  const { shown } = placement;
  return (
    <>
      <Choice
        label="Place"
        value={placement.place}
        options={[
          { value: "footer", word: "Footer" },
          { value: "sidebar", word: "Beside the text" },
        ]}
        onChange={(place) => onChange({ ...placement, place })}
      />
      <Choice
        label="Shown on"
        value={shown}
        options={[
          { value: "all", word: "All pages" },
          { value: "pages", word: "Chosen pages" },
          { value: "categories", word: "Categories" },
        ]}
        onChange={(next) => onChange({ ...placement, shown: next })}
      />
      {shown === "all" ? null : (
        <FieldRow
          label={
            shown === "pages"
              ? "Paths, one after the other; * stands for anything"
              : "Categories, separated by commas"
          }
        >
          {(field) => (
            <input
              {...field}
              className="field w-96 font-mono text-sm"
              placeholder={shown === "pages" ? "/reviews/*, /resources" : "Reviews, Instruments"}
              defaultValue={placement.on.join(", ")}
              onBlur={(event) =>
                onChange({
                  ...placement,
                  on: event.target.value
                    .split(",")
                    .map((one) => one.trim())
                    .filter(Boolean),
                })
              }
            />
          )}
        </FieldRow>
      )}
    </>
  );
}
