import { useQuery } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import { asking } from "../../ui/client/queries.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { Everybody } from "./Everybody.tsx";
import { InviteForm } from "./InviteForm.tsx";
import { Members } from "./Members.tsx";
import * as say from "./words.ts";

/** Who can sign in to a site, who is invited, and, for those who own the installation, everybody. */
export function PeopleScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Parts site={site} />
    </Screen>
  );
}

function Parts({ site }: { site: Site }) {
  const account = useQuery(asking("GET /me"));
  const ownsAll = account.data?.role === "owner";
  return (
    <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-8">
      <section aria-labelledby="members">
        <h1 id="members" className="mb-2 text-lg font-semibold">
          {say.whoCanSignInTo(site.name)}
        </h1>
        <Members site={site} />
      </section>
      <section aria-labelledby="invite">
        <h2 id="invite" className="mb-2 text-lg font-semibold">
          {say.inviteSomebody}
        </h2>
        <InviteForm site={site} ownsAll={ownsAll} />
      </section>
      {ownsAll ? (
        <section aria-labelledby="everybody">
          <h2 id="everybody" className="mb-2 text-lg font-semibold">
            {say.everybody}
          </h2>
          <Everybody site={site} />
        </section>
      ) : null}
    </div>
  );
}
