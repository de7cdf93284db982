import { CheckField, TextField } from "../../../ui/form/fields.tsx";
import type { LinkFields } from "./use-link-fields.ts";

/** The words of a link, its title, and whether a file is downloaded. */
export function WordFields({ fields, isPicture }: { fields: LinkFields; isPicture: boolean }) {
  const { label, judged } = fields;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <TextField name="words" label={isPicture ? "Alternative text" : "Words"} placeholder={label} />
        <TextField name="title" label="Title on hover" />
      </div>
      {judged?.kind === "file" ? (
        <CheckField name="keeps">Downloads the file instead of opening it in the browser</CheckField>
      ) : null}
    </>
  );
}
