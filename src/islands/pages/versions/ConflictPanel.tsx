import { pageText } from "../../../core/text/difference.ts";
import type { Draft } from "../draft/use-draft.ts";
import { when } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** Two people saved one page: both versions side by side, and the choice between them. The other one is kept aside. */
export function ConflictPanel({ draft, text }: { draft: Draft; text: string }) {
  const theirs = draft.conflict!;
  return (
    <section role="alert" className="mb-3 rounded border border-warn bg-sheet p-3">
      <p className="font-medium">
        {say.savedThisPageAtAfterYouHad(theirs.updatedBy, when(theirs.updatedAt))}
      </p>
      <div className="mt-2 grid gap-3 grid-cols-[minmax(0,1fr)] md:grid-cols-2">
        <Version name="Yours" title={draft.fields.title} text={text} />
        <Version name={`As ${theirs.updatedBy} saved it`} title={theirs.title} text={pageText(theirs.html)} />
      </div>
      <div className="mt-3 flex gap-2">
        <button className="action action-main" onClick={() => void draft.resolveConflict(true)}>
          {say.saveMineOverIt}
        </button>
        <button className="action" onClick={() => void draft.resolveConflict(false)}>
          {say.takeTheirs}
        </button>
      </div>
    </section>
  );
}

function Version({ name, title, text }: { name: string; title: string; text: string }) {
  return (
    <div>
      <h2 className="text-sm font-medium text-quiet">{name}</h2>
      <div className="max-h-48 overflow-auto rounded bg-sunk p-2 text-sm whitespace-pre-wrap" tabIndex={0}>
        <strong className="block">{title}</strong>
        {text}
      </div>
    </div>
  );
}
