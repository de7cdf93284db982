import { get, useFieldArray, useFormContext } from "react-hook-form";
import * as say from "./words.ts";

/** The site's variables, a name and a value each. */
export function VariableFields() {
  const { control, register, formState } = useFormContext();
  const { fields, append, remove } = useFieldArray({ control, name: "variables" });
  const fault = (get(formState.errors, "variables") as { message?: string } | undefined)?.message;
  return (
    <div>
      <p className="mb-2 text-sm text-quiet">{say.nameInATextOrAnAddress}</p>
      {fields.map(({ id }, index) => (
        <div key={id} className="mb-1.5 flex gap-2">
          <input
            aria-label={say.nameOfVariable(index + 1)}
            className="field w-48 font-mono text-sm"
            placeholder={say.account}
            {...register(`variables.${index}.name`)}
          />
          <input
            aria-label={say.valueOfVariable(index + 1)}
            className="field"
            {...register(`variables.${index}.value`)}
          />
          <button type="button" className="action action-plain text-bad" onClick={() => remove(index)}>
            {say.remove}
          </button>
        </div>
      ))}
      {fault ? (
        <p role="alert" className="text-bad">
          {fault}
        </p>
      ) : null}
      <button type="button" className="action" onClick={() => append({ name: "", value: "" })}>
        {say.anotherVariable}
      </button>
    </div>
  );
}
