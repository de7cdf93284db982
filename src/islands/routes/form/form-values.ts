import { z } from "zod";
import type { Route, WrittenRoute } from "../../../core/routes/route.ts";
import {
  AFTER_END,
  IN_CONTENT,
  QUERY_MODES,
  type RouteKind,
  type RouteStatus,
  NOTICE_SECONDS,
} from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { MATCH_KINDS } from "../../../core/routes/match/match-kind.ts";
import { shortHome } from "./use-route-check.ts";
import { usualRoute } from "../../../core/sites/usual-route.ts";
import { clockTimeOf, instantOf, isClockTime } from "../../../ui/format/clock-time.ts";
import { localeOf } from "../../../ui/format/format.ts";
import { frameData } from "../../../ui/frame/frame.ts";
import * as say from "../words.ts";

const moment = z.string().refine((typed) => typed === "" || isClockTime(typed), say.typeADayAndATime);

/** What the form itself can say at once; everything else is the linter's, which asks the same schemas on the server. */
export const routeFormSchema = z.object({
  destination: z.string(),
  host: z.string(),
  match: z.enum(MATCH_KINDS),
  address: z.string().trim().min(1, say.theAddressIsMissingItStartsWith),
  title: z.string(),
  status: z.string(),
  noticeSeconds: z.string(),
  noticeText: z.string(),
  query: z.enum(QUERY_MODES),
  parameters: z.string(),
  aliases: z.string(),
  tags: z.array(z.string()),
  validFrom: moment,
  validUntil: moment,
  afterEnd: z.enum(AFTER_END),
  endDestination: z.string(),
  noindex: z.boolean(),
  nofollow: z.boolean(),
  counted: z.boolean(),
  replacesPage: z.boolean(),
  inContent: z.enum(IN_CONTENT),
  contentPages: z.array(z.string()),
});
export type RouteFormValues = z.infer<typeof routeFormSchema>;

export const EVERY_HOST = "*";

/** The form of a route, or of a new one of a kind. */
export function initialValues(
  site: Site,
  kind: RouteKind,
  route: Route | undefined,
  start: { destination: string; address: string },
): RouteFormValues {
  const home =
    kind === "short"
      ? shortHome(site)
      : { host: site.hosts.find(({ role }) => role === "primary")!.name, prefix: "/" };
  const usual = usualRoute(site.defaults, kind);
  const { timeZone } = localeOf(frameData());
  return {
    destination: route?.destination ?? start.destination,
    host: route ? (route.host ?? EVERY_HOST) : (home.host ?? EVERY_HOST),
    match: route?.match ?? "exact",
    address: route?.address ?? (start.address || home.prefix),
    title: route?.title ?? "",
    status: String(route?.status ?? usual.status),
    noticeSeconds: String(route?.notice?.seconds ?? NOTICE_SECONDS),
    noticeText: route?.notice?.text ?? "",
    query: route?.query ?? usual.query,
    parameters: route?.parameters ?? "",
    aliases: route?.aliases.join(" ") ?? "",
    tags: route?.tags ?? [],
    validFrom: clockTimeOf(route?.validFrom, timeZone),
    validUntil: clockTimeOf(route?.validUntil, timeZone),
    afterEnd: route?.afterEnd ?? "nothing",
    endDestination: route?.endDestination ?? "",
    noindex: route?.robots.noindex ?? usual.noindex,
    nofollow: route?.robots.nofollow ?? usual.nofollow,
    counted: route?.counted ?? true,
    replacesPage: route?.replacesPage ?? false,
    inContent: route?.inContent ?? "nowhere",
    contentPages: route?.contentPages ?? [],
  };
}

/** What is sent for the form. */
export function inputOf(kind: RouteKind, values: RouteFormValues): WrittenRoute {
  const status = Number(values.status) as RouteStatus;
  const { timeZone } = localeOf(frameData());
  return {
    kind,
    match: values.match,
    address: values.address.trim(),
    host: values.host === EVERY_HOST ? null : values.host,
    destination: kind === "gone" ? null : values.destination,
    title: values.title,
    status,
    notice: status === 200 ? { seconds: Number(values.noticeSeconds), text: values.noticeText } : null,
    query: values.query,
    parameters: values.parameters.trim(),
    aliases: values.match === "exact" ? values.aliases.split(/\s+/).filter(Boolean) : [],
    tags: values.tags,
    validFrom: values.validFrom === "" ? null : instantOf(values.validFrom, timeZone),
    validUntil: values.validUntil === "" ? null : instantOf(values.validUntil, timeZone),
    afterEnd: values.afterEnd,
    endDestination: values.afterEnd === "destination" ? values.endDestination : null,
    robots: { noindex: values.noindex, nofollow: values.nofollow },
    counted: values.counted,
    replacesPage: values.replacesPage,
    inContent: values.inContent,
    contentPages: values.inContent === "pages" ? values.contentPages : [],
  };
}
