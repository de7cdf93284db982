import { Link2, X } from "lucide-react";
import type { Editor } from "@tiptap/react";
import { repairAddress } from "../../../core/address/repair/repair.ts";
import { PICTURE_SIDES, PICTURE_WIDTHS } from "../../../core/pages/body/picture.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { rememberFrame, type PictureFrame } from "./picture-defaults.ts";

type Attributes = PictureFrame & { src: string; alt: string | null; href: string | null };

/** The picture that is selected: what it shows, how it stands in the text, where it leads. */
export function PicturePanel(props: {
  editor: Editor;
  at: number;
  attributes: Attributes;
  onLink: () => void;
  onClose: () => void;
}) {
  const { editor, at, attributes } = props;
  const set = (change: Partial<Attributes>): void => {
    editor
      .chain()
      .command(({ tr }) => {
        for (const [name, value] of Object.entries(change)) tr.setNodeAttribute(at, name, value);
        return true;
      })
      .setNodeSelection(at)
      .run();
    if ("width" in change || "align" in change) rememberFrame({ ...attributes, ...change });
  };
  const source = repairAddress(attributes.src);
  return (
    <section
      aria-label="Picture"
      className="grid gap-2.5 rounded border border-accent bg-sheet p-3 shadow-xl"
    >
      <FieldRow
        label="Alternative text"
        hint={attributes.alt ? undefined : "Say what the picture shows, for whoever cannot see it."}
      >
        {(field) => (
          <input
            {...field}
            className="field"
            value={attributes.alt ?? ""}
            onChange={(event) => set({ alt: event.target.value })}
          />
        )}
      </FieldRow>
      <FieldRow
        label="Picture’s address"
        error={source.ok || attributes.src === "" ? undefined : source.reason.message}
      >
        {(field) => (
          <input
            {...field}
            className="field font-mono text-sm"
            value={attributes.src}
            onChange={(event) => set({ src: event.target.value.trim() })}
          />
        )}
      </FieldRow>
      <Choice
        label="Width"
        value={attributes.width ?? "own"}
        options={[
          { value: "own", word: "own width" },
          ...PICTURE_WIDTHS.map((one) => ({ value: one, word: one })),
        ]}
        onChange={(value) => set({ width: value === "own" ? null : value })}
      />
      <Choice
        label="Side"
        value={attributes.align ?? "flow"}
        options={[
          { value: "flow", word: "in the flow" },
          ...PICTURE_SIDES.map((one) => ({ value: one, word: one })),
        ]}
        onChange={(value) => set({ align: value === "flow" ? null : value })}
      />
      <p className="text-sm text-quiet">
        The caption is written below the picture itself.{" "}
        {attributes.href ? `The picture leads to ${attributes.href}.` : "The picture leads nowhere yet."}
      </p>
      <div className="flex gap-2">
        <button className="action action-main" onClick={props.onLink}>
          <Link2 size={15} aria-hidden /> {attributes.href ? "Change its link" : "Link the picture"}
        </button>
        <button
          className="action action-plain text-bad"
          onClick={() => editor.chain().focus().setNodeSelection(at).deleteSelection().run()}
        >
          Take it out
        </button>
        <button
          className="action action-plain ml-auto px-1"
          aria-label="Close the picture’s panel"
          onClick={props.onClose}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
    </section>
  );
}
