import { useState } from "react";
import { Form, SaveButton } from "../form/Form.tsx";
import { AreaField, TextField } from "../form/fields.tsx";
import { useSavedForm } from "../form/use-saved-form.ts";
import type { Call } from "./document.ts";
import { requestOf, type Tried } from "./try.ts";
import * as say from "../words.ts";

/** Makes a call as the person who is signed in, and shows what came. */
export function TryIt({ call }: { call: Pick<Call, "method" | "path" | "parameters" | "requestBody"> }) {
  const [answer, setAnswer] = useState<string>();
  const parameters = (call.parameters ?? []).filter((one) => one.in !== "header");
  const [media, body] = Object.entries(call.requestBody?.content ?? {})[0] ?? [];
  const form = useSavedForm<Tried, void>({
    values: {
      values: Object.fromEntries(
        parameters.map((one) => [one.name, one.in === "path" ? String(one.example ?? "") : ""]),
      ),
      body: body?.example === undefined ? "" : JSON.stringify(body.example, null, 2),
    },
    async save(tried) {
      const [address, init] = requestOf(call, media, tried);
      setAnswer(await textOf(await fetch(address, init)));
    },
  });
  return (
    <details>
      <summary className="cursor-pointer font-semibold text-accent">{say.tryIt}</summary>
      <div className="grid gap-3 pt-2">
        {call.method === "GET" ? null : <p className="text-sm text-warn">{say.thisIsTheRealThingWhatIt}</p>}
        <Form
          of={form}
          label={say.tryWord(call.method, call.path)}
          actions={
            <div>
              <SaveButton of={form}>{say.send}</SaveButton>
            </div>
          }
        >
          {parameters.map(({ name, required }) => (
            <TextField
              key={name}
              name={`values.${name}`}
              label={required ? name : say.mayBeLeftOut3(name)}
              mono
            />
          ))}
          {call.requestBody ? <AreaField name="body" label={say.body2(media ?? "")} mono rows={8} /> : null}
        </Form>
        <div role="status">
          {answer === undefined ? null : (
            <pre
              tabIndex={0}
              aria-label={say.whatWasAnswered}
              className="max-h-96 overflow-auto rounded bg-sunk p-2 text-sm"
            >
              {answer}
            </pre>
          )}
        </div>
      </div>
    </details>
  );
}

const SHOWN = ["content-type", "location", "etag", "ratelimit", "retry-after"];

async function textOf(response: Response): Promise<string> {
  const headers = SHOWN.flatMap((name) => {
    const value = response.headers.get(name);
    return value === null ? [] : [`${name}: ${value}`];
  });
  const text = await response.text();
  const isJson = /json/.test(response.headers.get("content-type") ?? "") && text !== "";
  const body = isJson ? JSON.stringify(JSON.parse(text), null, 2) : text;
  return [`${response.status} ${response.statusText}`, ...headers, "", body].join("\n");
}
