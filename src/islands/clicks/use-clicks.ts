import { useQuery } from "@tanstack/react-query";
import { utcDay } from "../../core/clicks/record.ts";
import type { ClickGrouping } from "../../core/clicks/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { asking } from "../../ui/client/queries.ts";

/** What a clicks view asks for. */
export interface ClicksQuestion {
  by: ClickGrouping;
  /** Days, today included; or from and to. */
  span: number;
  from?: string;
  to?: string;
  route?: string;
  compare?: boolean;
}

/** The span of a question as the API takes it. */
export function spanOf({
  span,
  from,
  to,
}: Pick<ClicksQuestion, "span" | "from" | "to">): Record<string, string> {
  if (from || to) return { ...(from ? { from } : {}), ...(to ? { to } : {}) };
  return { from: utcDay(Date.now() - (span - 1) * 86_400_000) };
}

/** Clicks as they are asked for; asked again while the screen is open. */
export function useClicks(site: Site, question: ClicksQuestion) {
  const query = {
    by: question.by,
    ...spanOf(question),
    ...(question.route ? { route: question.route } : {}),
    ...(question.compare ? { compare: "1" } : {}),
  };
  return useQuery({
    ...asking("GET /sites/:site/clicks", { site: site.id, query }),
    placeholderData: (previous) => previous,
    refetchInterval: 5_000,
  });
}

/** Single clicks of one class, newest first. */
export function useLatestClicks(site: Site, question: Omit<ClicksQuestion, "by"> & { class: string }) {
  const query = {
    ...spanOf(question),
    class: question.class,
    ...(question.route ? { route: question.route } : {}),
  };
  return useQuery({
    ...asking("GET /sites/:site/clicks/latest", { site: site.id, query }),
    placeholderData: (previous) => previous,
    refetchInterval: 10_000,
  });
}
