import { get, useFieldArray, useFormContext } from "react-hook-form";

/** The site's variables, a name and a value each. */
export function VariableFields() {
  const { control, register, formState } = useFormContext();
  const { fields, append, remove } = useFieldArray({ control, name: "variables" });
  const fault = (get(formState.errors, "variables") as { message?: string } | undefined)?.message;
  return (
    <div>
      <p className="mb-2 text-sm text-quiet">
        {"{{name}}"} in a text or an address is filled with the value when the page is delivered; a partner’s
        snippet with a placeholder of such a name is filled by itself.
      </p>
      {fields.map(({ id }, index) => (
        <div key={id} className="mb-1.5 flex gap-2">
          <input
            aria-label={`Name of variable ${index + 1}`}
            className="field w-48 font-mono text-sm"
            placeholder="account"
            {...register(`variables.${index}.name`)}
          />
          <input
            aria-label={`Value of variable ${index + 1}`}
            className="field"
            {...register(`variables.${index}.value`)}
          />
          <button type="button" className="action action-plain text-bad" onClick={() => remove(index)}>
            Remove
          </button>
        </div>
      ))}
      {fault ? (
        <p role="alert" className="text-bad">
          {fault}
        </p>
      ) : null}
      <button type="button" className="action" onClick={() => append({ name: "", value: "" })}>
        Another variable
      </button>
    </div>
  );
}
