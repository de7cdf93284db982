import { useQuery } from "@tanstack/react-query";
import { utcDay } from "../../core/clicks/record.ts";
import type { ClicksAnswer } from "../../core/objects/clicks.ts";
import type { Site } from "../../core/objects/site.ts";
import { api } from "../../ui/api.ts";

/** Clicks of the last `span` days, today included; asked again while the screen is open. */
export function useClicks(site: Site, question: { by: "day" | "route"; span: number; route?: string }) {
  const from = utcDay(Date.now() - (question.span - 1) * 86_400_000);
  const query = new URLSearchParams({
    by: question.by,
    from,
    ...(question.route ? { route: question.route } : {}),
  }).toString();
  return useQuery({
    queryKey: ["clicks", site.id, query],
    queryFn: () => api<ClicksAnswer>("GET", `/sites/${site.id}/clicks?${query}`),
    placeholderData: (previous) => previous,
    refetchInterval: 5_000,
  });
}
