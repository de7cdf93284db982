import { useMutation } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";

interface Values {
  name: string;
  host: string;
  short: string;
}

/** Shown while there is no site at all. */
export function FirstSite() {
  return (
    <Screen>
      <Form />
    </Screen>
  );
}

function Form() {
  const form = useForm<Values>({ defaultValues: { name: "", host: "", short: "" } });
  const make = useMutation({
    mutationFn: ({ name, host, short }: Values) =>
      api("POST /sites", {
        body: {
          key: name
            .toLowerCase()
            .replace(/[^a-z0-9]+/g, "-")
            .replace(/^-|-$/g, "")
            .slice(0, 60),
          name,
          hosts: [
            { name: host, role: "primary" as const },
            ...(short.trim() ? [{ name: short, role: "short" as const }] : []),
          ],
        },
      }),
    onSuccess: (site) => location.assign(`/${site.key}/pages`),
  });
  const errors = make.error instanceof ApiProblem ? make.error.errors : [];
  const errorAt = (...paths: string[]): string | undefined =>
    errors.find(({ path }) => paths.some((start) => path.startsWith(start)))?.message;
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
    >
      <h1 className="text-xl font-semibold">Your first site</h1>
      <p className="text-quiet">Its pages, short links and redirects are answered under these hosts.</p>
      <FieldRow label="Name" error={errorAt("name", "key")}>
        {(attributes) => <input {...attributes} {...form.register("name")} className="field" autoFocus />}
      </FieldRow>
      <FieldRow label="Host" error={errorAt("hosts")} hint="Such as garden.example">
        {(attributes) => (
          <input {...attributes} {...form.register("host")} className="field font-mono text-sm" />
        )}
      </FieldRow>
      <FieldRow label="Host for short links, if you have one">
        {(attributes) => (
          <input {...attributes} {...form.register("short")} className="field font-mono text-sm" />
        )}
      </FieldRow>
      {make.isError && errors.length === 0 ? <p className="text-bad">{messageOf(make.error)}</p> : null}
      <button className="action action-main justify-self-start">Make the site</button>
    </form>
  );
}
