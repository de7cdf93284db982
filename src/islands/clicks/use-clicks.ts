import { useQuery } from "@tanstack/react-query";
import { utcDay } from "../../core/clicks/record.ts";
import type { ClickGrouping, ClicksAnswer, LatestClicks } from "../../core/clicks/clicks.ts";
import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";

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
  const query = new URLSearchParams({
    by: question.by,
    ...spanOf(question),
    ...(question.route ? { route: question.route } : {}),
    ...(question.compare ? { compare: "1" } : {}),
  }).toString();
  return useQuery({
    queryKey: ["clicks", site.id, query],
    queryFn: () => api<ClicksAnswer>("GET", `/sites/${site.id}/clicks?${query}`),
    placeholderData: (previous) => previous,
    refetchInterval: 5_000,
  });
}

/** Single clicks of one class, newest first. */
export function useLatestClicks(site: Site, question: Omit<ClicksQuestion, "by"> & { class: string }) {
  const query = new URLSearchParams({
    ...spanOf(question),
    class: question.class,
    ...(question.route ? { route: question.route } : {}),
  }).toString();
  return useQuery({
    queryKey: ["clicks-latest", site.id, query],
    queryFn: () => api<LatestClicks>("GET", `/sites/${site.id}/clicks/latest?${query}`),
    placeholderData: (previous) => previous,
    refetchInterval: 10_000,
  });
}
