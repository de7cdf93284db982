import { useMutation, useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Rule, RuleSet } from "../../core/rules/rule.ts";
import type { Site } from "../../core/sites/site.ts";
import { notify } from "../../ui/notices/notices.ts";
import type { KeptSet } from "./kept-set.ts";
import { queries, asking, refresh, keyOf } from "../../ui/client/queries.ts";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** A rule of the set that is worked on, told by a key of this browser's own. */
export interface WorkedRule {
  key: string;
  rule: Rule;
}

/** The set that is worked on, beside the one in force. */
export interface WorkingSet {
  /** The set in force; undefined until it has come. */
  inForce: RuleSet | undefined;
  failure: string | undefined;
  rules: readonly WorkedRule[];
  /** It differs from the one in force. */
  isChanged: boolean;
  /** Another set came into force since work on this one began. */
  isOvertaken: boolean;
  /** Version that this one is made over. */
  base: number;
  edit(rules: readonly WorkedRule[]): void;
  discard(): void;
  /** Goes on with this set over the one in force now. */
  rebase(): void;
  switchOn(): void;
  isSwitching: boolean;
}

let made = 0;
/** Gives a rule its key. */
export function worked(rule: Rule): WorkedRule {
  return { key: `rule-made-${(made += 1)}`, rule };
}

/** Works on a set of rules; what is typed survives a closed tab, and nothing acts before it is switched on. */
export function useWorkingSet(site: Site): WorkingSet {
  const storageKey = `maprope:rules:${site.id}`;
  const query = useQuery(asking("GET /sites/:site/rules", { site: site.id }));
  const inForce = query.data;
  const [set, setSet] = useState(inForce && fresh(inForce));
  /** Whether what was kept of an earlier hour has been looked for, and is being read. */
  const [kept, setKept] = useState<"unknown" | "reading" | "read">("unknown");
  const isChanged = Boolean(inForce && set && !same(set.rules, inForce.rules));
  const begun = useRef(false);

  useEffect(() => {
    if (!inForce || begun.current) return;
    begun.current = true;
    const begin = (found?: KeptSet): void => {
      setSet(found ? { base: found.base, rules: found.rules.map(worked) } : fresh(inForce));
      setKept("read");
    };
    const text = localStorage.getItem(storageKey);
    if (text === null) return begin();
    setKept("reading");
    void import("./kept-set.ts").then(({ readKeptSet }) => begin(readKeptSet(text)));
  }, [inForce, storageKey]);
  // Where nothing is being changed, the set that is shown is the one in force.
  useEffect(() => {
    if (kept !== "read" || !inForce || !set || set.base === inForce.version) return;
    if (localStorage.getItem(storageKey) === null) setSet(fresh(inForce));
  }, [inForce, set, kept, storageKey]);
  useEffect(() => {
    if (kept !== "read" || !set || !inForce) return;
    if (same(set.rules, inForce.rules)) localStorage.removeItem(storageKey);
    else
      localStorage.setItem(
        storageKey,
        JSON.stringify({ base: set.base, rules: set.rules.map(({ rule }) => rule) } satisfies KeptSet),
      );
  }, [set, inForce, kept, storageKey]);

  const edit = useCallback((rules: readonly WorkedRule[]) => setSet((now) => now && { ...now, rules }), []);
  const save = useMutation({
    mutationFn: (next: RuleSet) => api("PUT /sites/:site/rules", { site: site.id, body: next }),
    onSuccess: (saved) => {
      const before = inForce;
      localStorage.removeItem(storageKey);
      queries.setQueryData(keyOf("GET /sites/:site/rules", { site: site.id }), {
        version: saved.version,
        rules: saved.rules,
      });
      void refresh("GET /sites/:site/rules/versions", "GET /sites/:site/rules/versions/:version");
      setSet(fresh(saved));
      notify(say.setIsInForceDeliveredPagesFollow(saved.version), {
        undo: before ? () => save.mutate({ version: saved.version, rules: before.rules }) : undefined,
      });
    },
    onError: (error) => {
      notify(messageOf(error), { tone: "failed" });
      if (error instanceof ApiProblem && error.status === 409) void query.refetch();
    },
  });
  return {
    // Until there is something to work on, nothing is shown to be in force: an empty set is not what is there.
    inForce: kept === "reading" ? undefined : set && inForce,
    failure: query.isError ? messageOf(query.error) : undefined,
    rules: set?.rules ?? [],
    isChanged,
    isOvertaken: Boolean(isChanged && inForce && set && set.base !== inForce.version),
    base: set?.base ?? 0,
    edit,
    discard: () => inForce && setSet(fresh(inForce)),
    rebase: () => inForce && setSet((now) => now && { ...now, base: inForce.version }),
    switchOn: () => set && save.mutate({ version: set.base, rules: set.rules.map(({ rule }) => rule) }),
    isSwitching: save.isPending,
  };
}

function fresh({ version, rules }: RuleSet): { base: number; rules: readonly WorkedRule[] } {
  // As the server drew them, so that they are taken over as they are.
  return { base: version, rules: rules.map((rule, at) => ({ key: `rule-${version}-${at}`, rule })) };
}

function same(set: readonly WorkedRule[], rules: readonly Rule[]): boolean {
  return JSON.stringify(set.map(({ rule }) => rule)) === JSON.stringify(rules);
}
