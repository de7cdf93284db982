import { useCallback, useState } from "react";
import type { Editor } from "@tiptap/react";
import type { SnippetAnswer } from "../../../../core/pages/page.ts";
import type { Site } from "../../../../core/sites/site.ts";
import { notify } from "../../../../ui/notices/notices.ts";
import { api, messageOf } from "../../../../ui/client/api.ts";

/** True for pasted text that is HTML source with links, pictures or what partners wrap them in. */
export function isSnippet(text: string): boolean {
  return /<(?:a|img|script|iframe|figure)\b[^>]*>/i.test(text);
}

/** Takes partners' snippets into the text, and holds the report of the last one. */
export function useSnippets(site: Site): {
  report: SnippetAnswer | undefined;
  take(editor: Editor, html: string): void;
  close(): void;
} {
  const [report, setReport] = useState<SnippetAnswer>();
  const take = useCallback(
    (editor: Editor, html: string) => {
      api("POST /sites/:site/snippets", { site: site.id, body: { html } }).then(
        (answer) => {
          const content =
            (answer.body as { content?: { type: string; content?: unknown[] }[] }).content ?? [];
          const only =
            content.length === 1 && content[0]!.type === "paragraph" ? content[0]!.content : content;
          if (only && only.length > 0)
            editor
              .chain()
              .focus()
              .insertContent(only as never)
              .run();
          setReport(answer);
        },
        (error: unknown) => notify(messageOf(error), { tone: "failed" }),
      );
    },
    [site.id],
  );
  return { report, take, close: () => setReport(undefined) };
}
