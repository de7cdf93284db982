import { useEffect, useMemo, useRef, useState } from "react";
import type { Finding } from "../../../core/pages/check/finding.ts";
import type { CheckAgainst } from "../../../core/pages/check/page-check.ts";
import type { Site } from "../../../core/sites/site.ts";
import type { CheckAnswer, CheckQuestion } from "../../../workers/page-check.ts";
import type { Judging, PageFields } from "./use-delivered.ts";

/** The findings of a page, kept current in a worker while it is written. */
export interface Checking {
  findings: readonly Finding[];
  /** How long the last check took, in milliseconds; undefined before the first. */
  milliseconds: number | undefined;
}

const REST_MS = 200;

/**
 * Checks a text whenever it has rested for a moment, or what it is checked against has changed. `follow` calls back
 * at every change of the text; `read` gives it, as a body or as source, and is only called when it is time. Neither
 * makes the screen render again: while somebody types, only the text itself is drawn.
 */
export function useCheck(
  site: Site,
  page: PageFields,
  judging: Judging,
  follow: (changed: () => void) => () => void,
  read: () => { body: unknown } | { html: string },
): Checking {
  const [checking, setChecking] = useState<Checking>({ findings: [], milliseconds: undefined });
  const worker = useRef<Worker>(undefined);
  const newest = useRef(0);
  const reading = useRef(read);
  useEffect(() => {
    reading.current = read;
  });
  useEffect(() => {
    const made = new Worker(new URL("../../../workers/page-check.ts", import.meta.url), { type: "module" });
    made.addEventListener("message", ({ data }: MessageEvent<CheckAnswer>) => {
      // An answer that a newer question has overtaken is of no use.
      if (data.id !== newest.current) return;
      performance.measure("page check", {
        start: performance.now() - data.milliseconds,
        duration: data.milliseconds,
      });
      setChecking({ findings: data.findings, milliseconds: data.milliseconds });
    });
    worker.current = made;
    return () => made.terminate();
  }, []);

  const { rules, resolvedLinks } = judging;
  const against = useMemo<CheckAgainst | undefined>(
    () =>
      rules && {
        hosts: site.hosts.map(({ name }) => name),
        resolvedLinks,
        rules: rules.rules,
        page: { path: page.path, category: page.category },
        variables: site.variables,
        partners: site.partners,
        disclosure: page.isBlock ? undefined : site.disclosure,
        limits: {
          paidLimit: site.paidLimit,
          paidLimitLong: site.paidLimitLong,
          longWords: site.longWords,
        },
      },
    [rules, resolvedLinks, site, page.path, page.category, page.isBlock],
  );
  useEffect(() => {
    if (!against) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = (): void => {
      const question: CheckQuestion = { id: (newest.current += 1), against, ...reading.current() };
      worker.current?.postMessage(question);
    };
    const soon = (): void => {
      clearTimeout(timer);
      timer = setTimeout(ask, REST_MS);
    };
    soon();
    const leave = follow(soon);
    return () => {
      clearTimeout(timer);
      leave();
    };
  }, [against, follow]);
  return checking;
}
