import type {
  WithDeliveryPort,
  WithOutgoing,
  WithReport,
  WithSeal,
  WithStore,
  WithWorkspaceHosts,
} from "./ground/parts.ts";
import type { WithMail } from "./people/mail-links.ts";
import type { WithProof } from "./sites/check-host.ts";
import type { WithThread } from "./jobs/desk-thread.ts";
import type { WithJobs } from "./jobs/jobs.ts";
import type { WithPreview } from "./pages/preview.ts";
import type { WithTexts } from "./pages/texts/read-text.ts";

/** What work beside the requests has of the desk. */
export type ThreadDesk = WithStore & WithDeliveryPort & WithTexts & WithReport;

/** What a process's desk has before it serves anybody: enough to fill an empty database. */
export type StartingDesk = ThreadDesk & WithWorkspaceHosts & WithOutgoing & WithSeal & WithThread & WithJobs;

/** All that the handlers of the API's calls are given between them; each names the parts that it uses. */
export type Desk = StartingDesk & WithPreview & WithHealth & WithProof & WithMail;

export interface WithHealth {
  /** What the delivery listener of this process says of itself. */
  health(): Promise<Record<string, unknown>>;
}
