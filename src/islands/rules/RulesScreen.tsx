import { useMutation, useQuery } from "@tanstack/react-query";
import type { Rule, RuleSet } from "../../core/objects/rule.ts";
import type { Site } from "../../core/objects/site.ts";
import { ruleSentence } from "../../core/rules/sentence.ts";
import { api, ApiProblem, messageOf, queries } from "../../ui/api.ts";
import { Toggle } from "../../ui/Toggle.tsx";
import { Screen } from "../../ui/Screen.tsx";
import { tell } from "../../ui/notices.ts";

/** The site's rules as sentences, in the order in which they are asked. */
export function RulesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Rules site={site} />
    </Screen>
  );
}

const NEW_TAB: Rule = {
  name: "Outside links open in a new tab",
  enabled: true,
  match: { destination: "external" },
  set: { target: "new" },
  mode: "fill",
};

function Rules({ site }: { site: Site }) {
  const rules = useQuery({
    queryKey: ["rules", site.id],
    queryFn: () => api<RuleSet>("GET", `/sites/${site.id}/rules`),
  });
  const save = useMutation({
    mutationFn: (set: RuleSet) => api<RuleSet>("PUT", `/sites/${site.id}/rules`, set),
    onSuccess: (saved, sent) => {
      queries.setQueryData(["rules", site.id], saved);
      const before = rules.data?.rules;
      tell("Rules saved; delivered pages follow at once", {
        undo:
          before && sent.rules !== before
            ? () => save.mutate({ version: saved.version, rules: before })
            : undefined,
      });
    },
    onError: (error) => {
      tell(messageOf(error), { tone: "failed" });
      if (error instanceof ApiProblem && error.status === 409) void rules.refetch();
    },
  });
  if (rules.isError) return <p className="text-bad">{messageOf(rules.error)}</p>;
  if (!rules.data) return <p className="text-quiet">Fetching the rules…</p>;
  const { version, rules: list } = rules.data;
  const replace = (next: Rule[]): void => save.mutate({ version, rules: next });
  return (
    <div className="max-w-3xl">
      <h1 className="text-lg font-semibold">Rules</h1>
      <p className="mb-4 text-quiet">
        They act when a page is delivered; what was written stays as it is. What an author sets on one link by
        hand beats them all. Among rules the more particular one decides, then the higher one.
      </p>
      {list.length === 0 ? (
        <div className="grid justify-items-start gap-3 rounded border border-dashed border-line p-6">
          <p>No rules yet: every link is delivered as its author wrote it.</p>
          <button className="action action-main" onClick={() => replace([NEW_TAB])}>
            Let outside links open in a new tab
          </button>
        </div>
      ) : (
        <ol className="grid gap-0">
          {list.map((rule, index) => (
            <li
              key={`${index} ${rule.name}`}
              className="flex items-start gap-3 border-b border-line/60 py-2.5"
            >
              <Toggle
                label={`${rule.name}: ${rule.enabled ? "on" : "off"}`}
                on={rule.enabled}
                disabled={save.isPending}
                onChange={(enabled) =>
                  replace(list.map((other) => (other === rule ? { ...rule, enabled } : other)))
                }
              />
              <div className={rule.enabled ? "" : "text-quiet"}>
                <p className="font-medium">{rule.name}</p>
                <p className="text-sm">{ruleSentence(rule)}</p>
              </div>
            </li>
          ))}
        </ol>
      )}
      <p className="mt-3 text-sm text-quiet">
        Set {version}. Each earlier set is kept. Rules can be written in full through the API (PUT
        /api/v1/sites/{site.key}/rules).
      </p>
    </div>
  );
}
