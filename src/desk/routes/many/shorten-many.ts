import { inFigures } from "../../../core/text/in-figures.ts";
import { z } from "zod";
import { compareKey } from "../../../core/address/compare.ts";
import { readAddressList, type ListedAddress } from "../../../core/routes/formats/address-list.ts";
import { repairAddress } from "../../../core/address/repair/repair.ts";
import { routeInputSchema, type Route } from "../../../core/routes/route.ts";
import { routeKey } from "../../../core/routes/match/address-form.ts";
import { suggestSlugs } from "../../../core/routes/slugs/suggest-slugs.ts";
import { fieldErrors, Problem } from "../../ground/problem.ts";
import { shortLinksTo, shortPrefixOn, surroundingsOf } from "../route-advice.ts";
import { createRoute } from "../routes.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../../ground/parts.ts";
import { shortenSchema, type ShortenAnswer } from "../../../contract/routes/shorten.ts";
import { keysTaken } from "../../../store/routes/addresses.ts";
import type { Actor } from "../../../core/people/actor.ts";

type Line = ShortenAnswer["lines"][number];

const MAX_LINES = 2_000;

/** Makes a short link for each address of a list; one that has one already is answered with that. */
export async function shortenMany(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  { text, host = site.shortHost, tags, dryRun }: z.infer<typeof shortenSchema>,
): Promise<ShortenAnswer> {
  const { items } = readAddressList(text);
  if (items.length > MAX_LINES)
    throw new Problem(
      422,
      "Too long a list",
      `At most ${inFigures(MAX_LINES)} lines at once; import a CSV file for more.`,
    );
  const prefix = shortPrefixOn(site, host);
  const rows = await keysTaken(desk.store, { site: site.id, host });
  const taken = rows.map(({ key }) => (key.startsWith(prefix) ? key.slice(prefix.length) : key.slice(1)));
  const seen = new Map<string, Line>();
  const lines: Line[] = [];
  for (const listed of items) {
    const made = await one(desk, actor, site, {
      listed,
      host,
      prefix,
      tags,
      taken,
      seen,
      dryRun,
    });
    if (made.address) taken.push(made.address.slice(prefix.length).toLowerCase());
    lines.push(made);
  }
  return { lines };
}

interface One {
  listed: ListedAddress;
  host: string;
  prefix: string;
  tags?: string[];
  taken: readonly string[];
  seen: Map<string, Line>;
  dryRun: boolean;
}

async function one(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  asked: One,
): Promise<Line> {
  const { line, pasted, address, slug, title } = asked.listed;
  const base = { line, pasted, destination: null, address: null };
  const repaired = repairAddress(address, surroundingsOf(desk, site));
  if (!repaired.ok) return { ...base, state: "refused", message: repaired.reason.message };
  const destination: string = repaired.address;
  const earlier = asked.seen.get(compareKey(destination));
  if (earlier)
    return {
      ...base,
      destination,
      address: earlier.address,
      state: "existing",
      message: `the same as line ${earlier.line}`,
    };
  const [existing] = await shortLinksTo(desk, site, destination);
  if (existing) {
    return remember(asked, {
      ...base,
      destination,
      address: existing.address,
      state: "existing",
      message: "has one already",
      route: existing,
    });
  }
  const [suggested] = suggestSlugs(destination, title, asked.taken);
  const path = `${asked.prefix}${(slug.replace(/^\/+/, "") || suggested?.slug) ?? ""}`;
  const input = routeInputSchema.safeParse({
    kind: "short",
    host: asked.host,
    address: path,
    destination,
    title,
    tags: asked.tags,
  });
  if (!input.success)
    return {
      ...base,
      destination,
      state: "refused",
      message: fieldErrors(input.error)
        .map(({ message }) => message)
        .join(" "),
    };
  if (asked.dryRun) {
    const clash = asked.taken.includes(routeKey(path, true).slice(asked.prefix.length));
    return clash
      ? { ...base, destination, address: null, state: "refused", message: `${path} is taken.` }
      : remember(asked, {
          ...base,
          destination,
          address: path,
          state: "new",
          message: slug ? "as you wrote" : (suggested?.reason ?? ""),
        });
  }
  try {
    const route: Route = await createRoute(desk, actor, site, input.data);
    return remember(asked, {
      ...base,
      destination,
      address: route.address,
      state: "new",
      message: "made",
      route,
    });
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { ...base, destination, state: "refused", message: error.message };
  }
}

function remember(asked: One, line: Line): Line {
  asked.seen.set(compareKey(line.destination!), line);
  return line;
}
