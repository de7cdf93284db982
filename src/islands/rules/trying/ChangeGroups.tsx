import { useEffect, useState } from "react";
import type { Rule, TriedRules } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { api, messageOf } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

type Group = TriedRules["groups"][number];
type Changed = Group["samples"][number];

/** The links that would change, by what changes of them; each group opens down to each link. */
export function ChangeGroups({
  site,
  rules,
  groups,
}: {
  site: Site;
  rules: readonly Rule[];
  groups: readonly Group[];
}) {
  if (groups.length === 0) return null;
  return (
    <ul aria-label={say.whatChanges} className="divide-y divide-line/60 border-y border-line/60">
      {groups.map((group) => (
        <li key={group.change}>
          <details>
            <summary className="flex items-baseline gap-2 py-1.5">
              <span className="grow font-mono text-sm">{group.change}</span>
              <span className="text-sm whitespace-nowrap text-quiet">
                {count(group.links)} {group.links === 1 ? say.link : say.links}, {count(group.pages)}{" "}
                {group.pages === 1 ? say.page : say.pages2}
              </span>
            </summary>
            <GroupLinks site={site} rules={rules} group={group} />
          </details>
        </li>
      ))}
    </ul>
  );
}

function GroupLinks({ site, rules, group }: { site: Site; rules: readonly Rule[]; group: Group }) {
  const [links, setLinks] = useState<readonly Changed[]>(group.samples);
  const [failure, setFailure] = useState("");
  useEffect(() => setLinks(group.samples), [group]);
  const more = async (): Promise<void> => {
    try {
      const only = { change: group.change, offset: links.length };
      const { listed } = await api("POST /sites/:site/rules/try", {
        site: site.id,
        body: { rules: [...rules], only },
      });
      setLinks([...links, ...listed]);
      setFailure("");
    } catch (error) {
      setFailure(messageOf(error));
    }
  };
  return (
    <div className="pb-2">
      <ul>
        {links.map((link) => (
          <ChangedLine key={link.id} site={site} link={link} />
        ))}
      </ul>
      {links.length < group.links ? (
        <button className="text-sm text-accent underline" onClick={() => void more()}>
          {say.showMoreOf(count(group.links))}
        </button>
      ) : null}
      {failure ? <p className="text-sm text-bad">{failure}</p> : null}
    </div>
  );
}

function ChangedLine({ site, link }: { site: Site; link: Changed }) {
  return (
    <li className="border-l-2 border-line py-1 pl-2 text-sm">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <a
          className="font-medium hover:underline"
          href={`/${site.key}/ledger?${new URLSearchParams({ q: link.href, ...(link.page ? { page: link.page } : {}) })}`}
        >
          {link.anchor || say.noWords}
        </a>
        <span className="font-mono text-xs text-quiet">{link.page || "navigation"}</span>
      </p>
      <p className="truncate">
        <AddressText address={link.href} most={60} oneLine />
      </p>
      <p className="font-mono text-xs">
        <del className="text-bad no-underline">{look(link.before)}</del>{" "}
        <ins className="text-good no-underline">→ {look(link.after)}</ins>
      </p>
    </li>
  );
}

function look({ rel, target }: { rel: string[]; target: string | null }): string {
  return (
    [rel.length > 0 ? `rel="${rel.join(" ")}"` : "", target ? `target="${target}"` : ""]
      .filter(Boolean)
      .join(" ") || say.plainSameTab
  );
}
