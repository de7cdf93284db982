import type { z } from "zod";
import type { FrontCheck, FrontState, frontInputSchema } from "../../core/origin/origin.ts";
import type { Actor } from "../../core/people/actor.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { frontCounts, frontSamples } from "../../store/origin/front-counts.ts";
import { setFront } from "../../store/origin/origins.ts";
import { audited } from "../ground/audit.ts";
import type { WithDeliveryPort, WithOutgoing, WithStore } from "../ground/parts.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { originRow } from "./origins.ts";

const DAYS = 7;
const MOST_SAMPLES = 50;
const PAGE_BYTES = 8 * 1024 * 1024;

/** How pages come to readers, and what passed of late. */
export async function readFront(desk: WithStore, site: OpenSite): Promise<FrontState> {
  const { comes, passes, only, here, frame } = await originRow(desk, site);
  const [counts, samples] = await Promise.all([
    frontCounts(desk.store, { site: site.id, days: DAYS }),
    frontSamples(desk.store, { site: site.id, most: MOST_SAMPLES }),
  ]);
  return { comes, passes, only, here, frame, counts, samples };
}

/** Sets how pages come to readers; it holds for the next request of each of them. */
export async function changeFront(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  to: z.infer<typeof frontInputSchema>,
): Promise<FrontState> {
  const { comes, passes, only, here } = await originRow(desk, site);
  const entry = {
    siteId: site.id,
    action: "origin.front",
    object: site.id,
    detail: { before: { comes, passes, only, here }, after: to },
  };
  await audited(desk, actor, entry, async (transaction) => {
    await setFront(desk.store, { site: site.id, ...to }, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  return readFront(desk, site);
}

/** Asks the origin as a reader would through us, and says what would come of it. */
export async function checkFront(
  desk: WithStore & WithOutgoing & WithTexts & WithDeliveryPort,
  site: OpenSite,
): Promise<FrontCheck> {
  const { address } = await originRow(desk, site);
  const { host, protocol, hostname } = new URL(address);
  const findings: FrontCheck["findings"] = [];
  const say = (
    about: FrontCheck["findings"][number]["about"],
    severity: "good" | "hint" | "fault",
    message: string,
  ): void => void findings.push({ about, severity, message });
  const answer = await desk.outgoing.fetch(address, {
    mostBytes: PAGE_BYTES,
    headers: { host: site.primary },
  });
  if (!answer.ok) say("answer", "fault", `${host} ${answer.reason}. Readers would get a page that says so.`);
  else {
    const { status, headers, bytes } = answer;
    const location = headers.location ?? "";
    if (status >= 300 && status < 400) {
      const leadsTo = URL.canParse(location, address) ? new URL(location, address).hostname : "";
      if (leadsTo === site.primary || leadsTo === hostname)
        say(
          "redirect",
          "hint",
          `Asked as ${site.primary}, it leads on to ${location}: readers follow that, and come to us again.`,
        );
      else
        say(
          "redirect",
          "fault",
          `Asked as ${site.primary}, it leads away to ${location}: readers would leave. Let it answer under that name.`,
        );
    } else if (status === 200) say("answer", "good", `Asked as ${site.primary}, it answers.`);
    else
      say(
        "answer",
        "fault",
        `Asked as ${site.primary}, it answers ${status}. Let it answer under that name.`,
      );
    const cookies = headers["set-cookie"] ?? "";
    const domain = /;\s{0,9}domain=\.?([^;,\s]{1,255})/i.exec(cookies)?.[1];
    if (domain !== undefined && !site.primary.endsWith(domain.toLowerCase()))
      say("cookies", "fault", `Its cookies are for ${domain}: browsers refuse them from ${site.primary}.`);
    if (/no-transform/i.test(headers["cache-control"] ?? ""))
      say(
        "caching",
        "fault",
        "It forbids that its pages are changed on the way (Cache-Control: no-transform): they pass untouched.",
      );
    const type = headers["content-type"] ?? "";
    if (status === 200 && /html/i.test(type)) {
      // Relative links are the site's own by then: only those that are written in full lead away.
      const asked = new URL(address);
      asked.hostname = site.primary;
      const page = await desk.texts.read({ do: "page", bytes, type, address: asked.href });
      const absolute = page.links.filter(
        ({ address: to }) => hostname !== site.primary && new URL(to).hostname === hostname,
      );
      if (absolute.length > 0)
        say(
          "absolute",
          "hint",
          `${absolute.length} links of its front page name ${hostname} in full: readers who follow them leave us. Let them begin with a slash.`,
        );
      if (page.isMadeByScripts)
        say(
          "coding",
          "hint",
          "Its front page is made by scripts: links that they write are not changed on the way.",
        );
    }
  }
  return { findings, ...linesFor(site, protocol, host, desk.deliveryPort) };
}

function linesFor(site: OpenSite, protocol: string, origin: string, port: number) {
  return {
    dns: `${site.primary}. 300 IN A <address of this installation>\n; its origin stays reachable as ${origin}`,
    nginx: [
      "server {",
      `  server_name ${site.primary};`,
      "  location / {",
      `    proxy_pass http://127.0.0.1:${port};`,
      "    proxy_http_version 1.1;",
      "    proxy_set_header Host $host;",
      "    proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;",
      "    proxy_set_header X-Forwarded-Proto $scheme;",
      "  }",
      "}",
    ].join("\n"),
    hosts: `127.0.0.1 ${site.primary}   # then look at http://${site.primary}:${port}/; the origin is ${protocol}//${origin}`,
  };
}
