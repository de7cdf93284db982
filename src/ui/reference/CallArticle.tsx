import type { ReactNode } from "react";
import type { ApiDocument, Call } from "./document.ts";
import { ShapeFields, TypeWords } from "./ShapeFields.tsx";
import * as say from "../words.ts";

/** One call: what it takes, what it answers, what may go wrong; `children` is where it is tried. */
export function CallArticle({
  call,
  document,
  children,
}: {
  call: Call;
  document: ApiDocument;
  children: ReactNode;
}) {
  const { method, path, parameters = [], requestBody, responses } = call;
  const statuses = Object.entries(responses);
  return (
    <article id={call.operationId} className="grid scroll-mt-4 gap-3 border-t border-line py-4">
      <h2 className="text-lg font-semibold">{call.summary}</h2>
      <p>
        <code className="wrap-anywhere rounded bg-sunk px-1.5 py-0.5">
          <b>{method}</b> /api/v1{path}
        </code>{" "}
        <span className="text-sm text-quiet">{call.operationId}</span>
      </p>
      <p className="text-sm">{call.description.replace(`${call.summary}. `, "")}</p>
      {parameters.length > 0 ? (
        <section className="grid gap-1">
          <h3 className="font-semibold">{say.parameters}</h3>
          <ul className="grid gap-1">
            {parameters.map((one) => (
              <li key={one.in + one.name}>
                <code className="font-semibold">{one.name}</code>{" "}
                <span className="text-quiet">{say.inThe(one.in, one.required ? "" : say.mayBeLeftOut)}</span>{" "}
                <TypeWords shape={one.schema} />
                <span className="block text-sm">{one.description}</span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <Bodies heading={say.body} content={requestBody?.content} />
      {statuses
        .filter(([status]) => Number(status) < 300)
        .map(([status, { content, description = "" }]) => (
          <Bodies
            key={status}
            heading={`${status}: ${description.toLowerCase()}`}
            content={content}
            isAlways
          />
        ))}
      <section className="grid gap-1">
        <h3 className="font-semibold">{say.whatMayGoWrong}</h3>
        <ul className="grid gap-0.5 text-sm">
          {statuses
            .filter(([status]) => Number(status) >= 400)
            .map(([status, { $ref }]) => (
              <li key={status}>
                <code>{status}</code>{" "}
                {document.components.responses[$ref?.split("/").at(-1) ?? ""]?.description}
              </li>
            ))}
        </ul>
      </section>
      {children}
    </article>
  );
}

type Content = NonNullable<Call["requestBody"]>["content"];

function Bodies({
  heading,
  content,
  isAlways,
}: {
  heading: string;
  content: Content | undefined;
  isAlways?: boolean;
}) {
  const entries = Object.entries(content ?? {});
  if (entries.length === 0 && !isAlways) return null;
  return (
    <section className="grid gap-1">
      <h3 className="font-semibold">{heading}</h3>
      {entries.length === 0 ? <p className="text-sm">{say.withoutABody}</p> : null}
      {entries.map(([media, { schema, example }]) => (
        <div key={media} className="grid gap-1">
          <p className="text-sm text-quiet">{media}</p>
          {media === "application/json" ? <ShapeFields shape={schema} /> : null}
          {example === undefined ? null : (
            <details>
              <summary className="cursor-pointer text-sm">{say.example}</summary>
              <pre tabIndex={0} className="overflow-x-auto rounded bg-sunk p-2 text-sm">
                {JSON.stringify(example, null, 2)}
              </pre>
            </details>
          )}
        </div>
      ))}
    </section>
  );
}
