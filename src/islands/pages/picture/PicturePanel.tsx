import { Link2, X } from "lucide-react";
import type { Editor } from "@tiptap/react";
import { repairAddress } from "../../../core/address/repair/repair.ts";
import { PICTURE_SIDES, PICTURE_WIDTHS } from "../../../core/pages/body/picture.ts";
import { ChoiceField, TextField } from "../../../ui/form/fields.tsx";
import { LiveForm } from "../../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../../ui/form/use-live-form.ts";
import { rememberFrame, type PictureFrame } from "./picture-defaults.ts";
import * as say from "../words.ts";

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
  const form = useLiveForm<Record<"alt" | "src" | "width" | "align", string>>({
    values: {
      alt: attributes.alt ?? "",
      src: attributes.src,
      width: attributes.width ?? "own",
      align: attributes.align ?? "flow",
    },
    onChange(_typed, { src, width, align, ...alt }) {
      set({
        ...alt,
        ...(src === undefined ? {} : { src: src.trim() }),
        ...(width === undefined ? {} : { width: width === "own" ? null : (width as PictureFrame["width"]) }),
        ...(align === undefined ? {} : { align: align === "flow" ? null : (align as PictureFrame["align"]) }),
      });
    },
  });
  const source = repairAddress(attributes.src);
  return (
    <section
      aria-label={say.picture}
      className="grid gap-2.5 rounded border border-accent bg-sheet p-3 shadow-xl"
    >
      <LiveForm of={form}>
        <TextField
          name="alt"
          label={say.alternativeText}
          hint={attributes.alt ? undefined : say.sayWhatThePictureShowsForWhoever}
        />
        <TextField
          name="src"
          label={say.picturesAddress}
          mono
          error={source.ok || attributes.src === "" ? undefined : source.reason.message}
        />
        <ChoiceField
          name="width"
          label={say.width}
          options={[
            { value: "own", word: say.originalWidth },
            ...PICTURE_WIDTHS.map((one) => ({ value: one, word: one })),
          ]}
        />
        <ChoiceField
          name="align"
          label={say.side}
          options={[
            { value: "flow", word: say.inTheText },
            ...PICTURE_SIDES.map((one) => ({ value: one, word: one })),
          ]}
        />
      </LiveForm>
      <p className="text-sm text-quiet">
        {say.theCaptionIsWrittenBelowThePicture(
          attributes.href ? say.thePictureLeadsTo(attributes.href) : say.thePictureLeadsNowhereYet,
        )}
      </p>
      <div className="flex gap-2">
        <button className="action action-main" onClick={props.onLink}>
          <Link2 size={15} aria-hidden /> {attributes.href ? say.changeItsLink : say.linkThePicture}
        </button>
        <button
          className="action action-plain text-bad"
          onClick={() => editor.chain().focus().setNodeSelection(at).deleteSelection().run()}
        >
          {say.removePicture}
        </button>
        <button
          className="action action-plain ml-auto px-1"
          aria-label={say.closeThePicturesPanel}
          onClick={props.onClose}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
    </section>
  );
}
