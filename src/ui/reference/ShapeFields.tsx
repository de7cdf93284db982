import { boundWords, fieldsOf, nameOf, typeWords, type Shape } from "./document.ts";
import * as say from "../words.ts";

/** The fields of a shape, one line each; those of a shape without a name stand below the field. */
export function ShapeFields({ shape }: { shape: Shape }) {
  const fields = fieldsOf(shape);
  if (fields.length === 0) return <TypeWords shape={shape} />;
  return (
    <ul className="grid gap-1 border-l border-line pl-3">
      {fields.map(({ name, shape: field, isRequired }) => (
        <li key={name}>
          <code className="font-semibold">{name}</code>
          {isRequired ? null : <span className="text-quiet"> {say.mayBeLeftOut2}</span>}{" "}
          <TypeWords shape={field} />
          {fieldsOf(field).length > 0 ? <ShapeFields shape={field} /> : null}
        </li>
      ))}
    </ul>
  );
}

/** What a value may be, with a link to each shape that has a name. */
export function TypeWords({ shape }: { shape: Shape }) {
  const name = nameOf(shape) ?? (shape.items && nameOf(shape.items));
  const bounds = [boundWords(shape), shape.description].filter(Boolean).join(". ");
  return (
    <span className="text-sm text-quiet">
      {name ? (
        <>
          {shape.items ? say.listOf : ""}
          <a href={`#shape-${name}`}>{name}</a>
        </>
      ) : (
        <code>{typeWords(shape)}</code>
      )}
      {bounds ? `; ${bounds}` : ""}
    </span>
  );
}
