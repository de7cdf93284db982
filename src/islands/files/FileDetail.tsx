import { useQuery } from "@tanstack/react-query";
import type { SiteFile } from "../../core/files/file.ts";
import type { Site } from "../../core/sites/site.ts";
import { FORMED_TYPES } from "../../core/files/picture.ts";
import { Behind } from "../../ui/panel/Behind.tsx";
import { ShapeForm } from "./shape/ShapeForm.tsx";
import { HistoryLink } from "../../ui/links/HistoryLink.tsx";
import { useTitle } from "../../ui/frame/use-title.ts";
import { SidePanel } from "../../ui/panel/SidePanel.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { TextField } from "../../ui/form/fields.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { notify } from "../../ui/notices/notices.ts";
import { asking } from "../../ui/client/queries.ts";
import { api } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** One file: what it shows, where it stands, and which pages would miss it. */
export default function FileDetail(props: {
  site: Site;
  file: SiteFile;
  onChanged: () => void;
  onRemove: () => void;
  onClose: () => void;
}) {
  const { site, file } = props;
  const uses = useQuery(asking("GET /sites/:site/files/:id/uses", { site: site.id, id: file.id }));
  const form = useSavedForm({
    values: { alt: file.alt, path: file.path },
    save: (body) => api("PATCH /sites/:site/files/:id", { site: site.id, id: file.id, body }),
    onSaved: (saved, { reset }) => {
      reset({ alt: saved.alt, path: saved.path });
      notify(say.saved);
      props.onChanged();
    },
  });
  const path = form.watch("path");
  const used = uses.data?.items ?? [];
  useTitle(file.name);
  return (
    <SidePanel
      label={say.file(file.name)}
      of={file.id}
      title={file.name}
      className="self-start"
      onClose={props.onClose}
    >
      <div className="grid content-start gap-3">
        {file.mediaType.startsWith("image/") ? (
          <img src={asShown(file)} alt={file.alt} className="max-h-64 rounded-sm object-contain" />
        ) : null}
        <p className="text-sm text-quiet">
          {say.uploadedBy(file.mediaType, file.createdBy)}{" "}
          <a className="text-accent underline" href={file.url} target="_blank" rel="noopener">
            {say.openIt}
          </a>{" "}
          <HistoryLink site={site} kind="file" object={file.id} />
        </p>
        <Form
          of={form}
          needs="editor"
          actions={
            <div className="flex gap-2">
              <SaveButton of={form} disabled={!form.formState.isDirty}>
                {say.save}
              </SaveButton>
              <button type="button" className="action action-plain ml-auto text-bad" onClick={props.onRemove}>
                {used.length === 0
                  ? say.deleteFile
                  : used.length === 1
                    ? say.deleteThough1PageUsesIt
                    : say.deleteThoughPagesUseIt(used.length)}
              </button>
            </div>
          }
        >
          <TextField name="alt" label={say.alternativeTextToBeginWith} />
          <TextField
            name="path"
            label={say.path}
            mono
            hint={path !== file.path && used.length > 0 ? say.pagesThatUseItWouldLoseIt : undefined}
          />
        </Form>
        {FORMED_TYPES.has(file.mediaType) ? (
          <Behind word={say.whatIsShownOfIt} says={file.crop ? say.aPart : say.all}>
            <ShapeForm site={site} file={file} onChanged={props.onChanged} />
          </Behind>
        ) : null}
        <div>
          <h3 className="text-sm font-medium">{say.usedBy}</h3>
          {uses.isSuccess && used.length === 0 ? (
            <p className="text-sm text-quiet">{say.noPageAndNoBlockInDraft}</p>
          ) : null}
          <ul>
            {used.map((use) => (
              <li key={use.id}>
                <a className="hover:text-accent hover:underline" href={`/${site.key}/pages/${use.id}`}>
                  {use.title}
                </a>{" "}
                <span className="font-mono text-xs text-quiet">
                  {use.kind === "page" ? use.path : say.sharedBlock}
                </span>
              </li>
            ))}
          </ul>
        </div>
      </div>
    </SidePanel>
  );
}

// A browser keeps a picture for a while: another part of it has another address here.
function asShown({ url, crop, isFormed }: SiteFile): string {
  return crop ? `${url}?part=${Object.values(crop).join("-")}${isFormed ? "" : "-soon"}` : url;
}
