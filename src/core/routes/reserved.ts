import { caseFoldedKey } from "../address/path-key.ts";

/** What is to be said of a route at a path that is not its author's alone. */
export interface Reserved {
  severity: "error" | "warning";
  message: string;
}

const ASKED_BY_MACHINES: Readonly<Record<string, string>> = {
  "/robots.txt": "Search engines ask here what they may read",
  "/sitemap.xml": "Search engines look here for the list of pages",
  "/favicon.ico": "Browsers fetch the site's icon here",
  "/apple-touch-icon.png": "Phones fetch the site's icon here",
  "/ads.txt": "Advertising networks ask here who may sell the site's places",
};

/**
 * Says when delivery answers a path itself, so that a route there would never be reached or would take the site's
 * look away, and when machines ask every host for it. Undefined for all other paths.
 */
export function reservedPath(key: string): Reserved | undefined {
  const path = caseFoldedKey(key);
  if (path === "/healthz" || path === "/readyz")
    return {
      severity: "error",
      message: `${key} is answered by delivery itself: whoever watches the servers asks there. A route would never be reached.`,
    };
  if (path === "/~theme" || path.startsWith("/~theme/"))
    return {
      severity: "error",
      message: `What is below /~theme is the look of the site's own pages. Choose another address.`,
    };
  if (path === "/~pictures" || path.startsWith("/~pictures/"))
    return {
      severity: "error",
      message: `Below /~pictures are the sizes of the site's own pictures. Choose another address.`,
    };
  if (path === "/.well-known" || path.startsWith("/.well-known/"))
    return {
      severity: "warning",
      message: `Machines ask below /.well-known, to renew certificates for example (RFC 8615): let a route answer there only if that is meant.`,
    };
  const who = ASKED_BY_MACHINES[path];
  return who ? { severity: "warning", message: `${who}: they would get this route.` } : undefined;
}
