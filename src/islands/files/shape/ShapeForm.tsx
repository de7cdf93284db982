import { useRef, useState, type PointerEvent } from "react";
import type { SiteFile } from "../../../core/files/file.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { api, hrefOf } from "../../../ui/client/api.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { drawnCrop, focusAt, saidShape, typedShape, type Point, type ShapeTyped } from "./shape.ts";
import * as say from "../words.ts";

const PARTS = [
  ["left", say.fromTheLeft],
  ["top", say.fromTheTop],
  ["width", say.width],
  ["height", say.height],
] as const;
const FOCUS = [
  ["x", say.across],
  ["y", say.down],
] as const;

/** Which part of a picture is shown, and which point of it stays in sight: drawn on it, or typed. */
export function ShapeForm(props: { site: Site; file: SiteFile; onChanged: () => void }) {
  const { site, file } = props;
  const [sets, setSets] = useState<"crop" | "focus">("crop");
  const form = useSavedForm<ShapeTyped, SiteFile>({
    values: typedShape(file.crop, file.focus),
    save: (typed) =>
      api("PATCH /sites/:site/files/:id", { site: site.id, id: file.id, body: saidShape(typed) }),
    onSaved: (saved, { reset }) => {
      reset(typedShape(saved.crop, saved.focus));
      notify(say.savedItsSizesAreMadeAnew);
      props.onChanged();
    },
    fieldOf: (path) => path.replace(/^(?:crop|focus)\./, ""),
  });
  const typed = form.watch();
  const put = (part: Partial<ShapeTyped>): void => {
    for (const [name, value] of Object.entries(part))
      form.setValue(name as keyof ShapeTyped, value, { shouldDirty: true });
  };
  return (
    <Form
      of={form}
      label={say.whatIsShownOfIt}
      needs="editor"
      actions={
        <div className="flex gap-2">
          <SaveButton of={form} disabled={!form.formState.isDirty}>
            {say.save}
          </SaveButton>
          <button type="button" className="action action-plain" onClick={() => put(typedShape(null, null))}>
            {say.showAllOfIt}
          </button>
        </div>
      }
    >
      <Choice
        label={say.drawingSets}
        value={sets}
        options={[
          { value: "crop", word: say.whatIsShown },
          { value: "focus", word: say.itsFocus },
        ]}
        onChange={setSets}
      />
      <DrawnOn
        src={hrefOf("GET /sites/:site/files/:id/content", { site: site.id, id: file.id })}
        typed={typed}
        onDrawn={(from, to) =>
          put(sets === "crop" ? drawnCrop(from, to) : focusAt(to, saidShape(typed).crop))
        }
      />
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {PARTS.map(([name, label]) => (
          <TextField key={name} name={name} label={label} type="number" min={0} max={100} />
        ))}
      </div>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {FOCUS.map(([name, label]) => (
          <TextField key={name} name={name} label={label} type="number" min={0} max={100} />
        ))}
        <p className="col-span-2 self-end text-sm text-quiet">{say.theFocusStaysInSightWhereA}</p>
      </div>
    </Form>
  );
}

// The whole picture; what is not shown is veiled, and a cross marks the focus.
function DrawnOn(props: { src: string; typed: ShapeTyped; onDrawn: (from: Point, to: Point) => void }) {
  const { left, top, width, height, x, y } = props.typed;
  const from = useRef<Point | undefined>(undefined);
  const at = ({ clientX, clientY, currentTarget }: PointerEvent): Point => {
    const box = currentTarget.getBoundingClientRect();
    return { x: (clientX - box.left) / box.width, y: (clientY - box.top) / box.height };
  };
  return (
    <div
      className="relative cursor-crosshair touch-none overflow-hidden rounded-sm select-none"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = at(event);
      }}
      onPointerMove={(event) => from.current && props.onDrawn(from.current, at(event))}
      onPointerUp={(event) => {
        if (from.current) props.onDrawn(from.current, at(event));
        from.current = undefined;
      }}
    >
      <img src={props.src} alt="" draggable={false} className="block w-full" />
      <div
        className="absolute outline-2 outline-accent outline-solid"
        style={{
          left: `${left}%`,
          top: `${top}%`,
          width: `${width}%`,
          height: `${height}%`,
          boxShadow: "0 0 0 100rem rgb(0 0 0 / 55%)",
        }}
      >
        <span
          className="absolute size-4 -translate-1/2 rounded-full border-2 border-white bg-accent"
          style={{ left: `${x}%`, top: `${y}%` }}
        />
      </div>
    </div>
  );
}
