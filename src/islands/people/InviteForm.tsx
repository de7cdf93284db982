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
import * as say from "./words.ts";

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
      if (!saved.link) notify(say.canSignInToNow(saved.name, site.name));
      void refresh("GET /sites/:site/people", "GET /people");
    },
  });
  return (
    <>
      <Form of={form} label={say.inviteSomebody} className="flex flex-wrap items-start gap-3">
        <TextField name="mail" label={say.mailAddress} type="email" className="w-64" />
        <TextField name="name" label={say.nameOfSomebodyNew} className="w-48" />
        <SelectField name="role" label={say.as} options={ROLES.map((role) => [role, role])} />
        {ownsAll ? (
          <SelectField
            name="into"
            label={say.into}
            options={[
              ["site", site.name],
              ["all", say.everySite],
            ]}
          />
        ) : null}
        {hasMail ? (
          <div className="mt-7">
            <CheckField name="byMail">{say.byMail}</CheckField>
          </div>
        ) : null}
        <SaveButton of={form} isPlain className="mt-6">
          {say.invite}
        </SaveButton>
      </Form>
      {made?.link?.mailed ? (
        <p role="status" className="my-3">
          {say.aMailWithTheLinkIsOn(made.name)}
        </p>
      ) : made?.link ? (
        <HandedLink
          words={say.theLinkWithWhichSignsInHand(
            made.link.mailed === false ? say.theMailCouldNotBeSent : "",
            made.name,
          )}
          {...made.link}
        />
      ) : null}
    </>
  );
}
