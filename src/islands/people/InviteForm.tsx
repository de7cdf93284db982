import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { HandedLink as Link } from "../../core/people/member.ts";
import { ROLES, type Role } from "../../core/people/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { CheckField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { notify } from "../../ui/notices/notices.ts";
import { HandedLink } from "./HandedLink.tsx";

interface Made {
  name: string;
  link: Link | null;
}

/** Letting somebody in: whoever is new gets a link, which is handed to them. */
export function InviteForm({ site, ownsAll }: { site: Site; ownsAll: boolean }) {
  const [made, setMade] = useState<Made>();
  const installation = useQuery(asking("GET /installation"));
  const hasMail = installation.data?.hasMail === true;
  const form = useSavedForm({
    values: { mail: "", name: "", role: "editor" as Role, into: "site", byMail: true },
    save: ({ mail, name, role, into, byMail: wanted }): Promise<Made> => {
      const byMail = hasMail && wanted;
      return into === "all"
        ? api("POST /people", { body: { mail, name, role, byMail } })
        : api("POST /sites/:site/people", {
            site: site.id,
            body: { mail, role, byMail, ...(name ? { name } : {}) },
          });
    },
    onSaved: (saved, { reset }) => {
      reset();
      setMade(saved);
      if (!saved.link) notify(`${saved.name} can sign in to ${site.name} now.`);
      void refresh("GET /sites/:site/people", "GET /people");
    },
  });
  return (
    <>
      <Form of={form} label="Invite somebody" className="flex flex-wrap items-start gap-3">
        <TextField name="mail" label="Mail address" type="email" className="w-64" />
        <TextField name="name" label="Name, of somebody new" className="w-48" />
        <SelectField name="role" label="As" options={ROLES.map((role) => [role, role])} />
        {ownsAll ? (
          <SelectField
            name="into"
            label="Into"
            options={[
              ["site", site.name],
              ["all", "every site"],
            ]}
          />
        ) : null}
        {hasMail ? (
          <div className="mt-7">
            <CheckField name="byMail">by mail</CheckField>
          </div>
        ) : null}
        <SaveButton of={form} isPlain className="mt-6">
          Invite
        </SaveButton>
      </Form>
      {made?.link?.mailed ? (
        <p role="status" className="my-3">
          A mail with the link is on its way to {made.name}.
        </p>
      ) : made?.link ? (
        <HandedLink
          words={`${made.link.mailed === false ? "The mail could not be sent. " : ""}The link with which ${made.name} signs in; hand it to them.`}
          {...made.link}
        />
      ) : null}
    </>
  );
}
