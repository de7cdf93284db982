import { useQuery } from "@tanstack/react-query";
import type { PasteAnswer } from "../../../core/links/paste.ts";
import type { FrameSite } from "../../../ui/frame/frame-site.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { ChooseField } from "../../../ui/form/choose-fields.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { asking } from "../../../ui/client/queries.ts";
import { api } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** A partner's snippet in the paste field: what is in it, and one step that keeps it as a creative of its program. */
export function SnippetKeep(props: {
  site: FrameSite;
  html: string;
  snippet: NonNullable<PasteAnswer["snippet"]>;
  onKept: () => void;
}) {
  const { site, html, snippet, onKept } = props;
  const programs = useQuery({
    ...asking("GET /sites/:site/programs", { site: site.id }),
    select: ({ items }) => items,
  });
  const form = useSavedForm({
    values: { program: snippet.program ?? "", name: snippet.words.slice(0, 120) },
    save: ({ program: id, name }) =>
      api("POST /sites/:site/programs/:id/creatives", { site: site.id, id, body: { html, name } }),
    onSaved: (kept) => {
      notify(say.keptAsACreativeOf(kept.name, kept.program.name));
      onKept();
    },
  });
  const [program, name] = form.watch(["program", "name"]);
  return (
    <Form
      of={form}
      needs="editor"
      label={say.keepTheSnippet}
      className="flex flex-wrap items-end gap-2 rounded bg-wash p-2 text-sm"
    >
      <p className="w-full">
        {say.aSnippetWith(
          snippet.kind === "banner" ? say.aBanner : say.aTextLink,
          snippet.leftOut.length > 0 ? say.wouldBeLeftOut(snippet.leftOut.join(", ")) : "",
        )}
      </p>
      <TextField name="name" label={say.name} className="w-56" />
      <ChooseField
        name="program"
        label={say.program}
        placeholder={say.choose}
        options={(programs.data ?? []).map(({ id, name, network }) => ({
          value: id,
          word: name,
          note: network,
        }))}
      />
      <SaveButton of={form} isPlain disabled={program === "" || name.trim() === ""}>
        {say.keepAsACreative}
      </SaveButton>
    </Form>
  );
}
