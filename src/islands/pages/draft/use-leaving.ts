import { addressOf } from "../../../contract/ground/address.ts";
import { useEffect } from "react";
import { leaveBackup, type Backup } from "./backup.ts";
import { requestText } from "./written-change.ts";

/** What a request may carry that outlives its page (Fetch Standard, section 4.6), less the headers. */
const MAX_KEPT_ALIVE = 60_000;

/** What is kept of a page when its tab is left. */
export interface Leaving {
  siteId: string;
  pageId: string;
  isAllSaved: () => boolean;
  backupNow: () => Backup;
  saveNow: () => Promise<boolean>;
}

/** Whatever door a page is left by: what still waits is kept in this browser at once, and sent by a request that outlives it. */
export function useLeaving({ siteId, pageId, isAllSaved, backupNow, saveNow }: Leaving): void {
  useEffect(() => {
    const hide = (): void => {
      if (document.visibilityState !== "hidden" || isAllSaved()) return;
      leaveBackup(pageId, backupNow());
      void saveNow();
    };
    const leave = (): void => {
      if (isAllSaved()) return;
      const backup = backupNow();
      leaveBackup(pageId, backup);
      const body = requestText(backup, backup.version);
      if (body.length > MAX_KEPT_ALIVE) return;
      const headers = { "Content-Type": "application/json" };
      // Whether it arrives is seen when the page is opened again.
      fetch(addressOf("PUT /sites/:site/pages/:id", { site: siteId, id: pageId }), {
        method: "PUT",
        keepalive: true,
        headers,
        body,
      }).catch(() => undefined);
    };
    document.addEventListener("visibilitychange", hide);
    addEventListener("pagehide", leave);
    return () => {
      document.removeEventListener("visibilitychange", hide);
      removeEventListener("pagehide", leave);
    };
  }, [siteId, pageId, isAllSaved, backupNow, saveNow]);
}
