import { CheckField, TextField } from "../../../ui/form/fields.tsx";
import type { LinkFields } from "./use-link-fields.ts";
import * as say from "../words.ts";

/** The words of a link, its title, and whether a file is downloaded. */
export function WordFields({ fields, isPicture }: { fields: LinkFields; isPicture: boolean }) {
  const { label, judged } = fields;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <TextField name="words" label={isPicture ? say.alternativeText : say.words} placeholder={label} />
        <TextField name="title" label={say.titleOnHover} />
      </div>
      {judged?.kind === "file" ? (
        <CheckField name="keeps">{say.downloadsTheFileInsteadOfOpeningIt}</CheckField>
      ) : null}
    </>
  );
}
