import type { Notice } from "../../core/routes/route.ts";
import type { RouteStatus, QueryMode, AfterEnd, InContent } from "../../core/routes/choices.ts";

/** A route as delivery needs it; only enabled, not deleted ones. */
export interface DeliveredRoute {
  id: string;
  siteId: string;
  caseInsensitive: boolean;
  host: string | null;
  /** Stored keys of address and aliases (see `routeKey`). */
  keys: string[];
  destination: string | null;
  status: RouteStatus;
  counted: boolean;
  /** What most routes have none of; null then. */
  more: DeliveredMore | null;
}

/** The settings that few routes have. Times are ISO 8601. */
export interface DeliveredMore {
  query: QueryMode;
  parameters: string;
  notice: Notice | null;
  noindex: boolean;
  nofollow: boolean;
  replacesPage: boolean;
  validFrom: string | null;
  validUntil: string | null;
  afterEnd: AfterEnd;
  endDestination: string | null;
  inContent: InContent;
  contentPages: string[];
  destinationKey: string | null;
  address: string;
}
