import { z } from "zod";
import type { CatalogueEntry } from "../../core/programs/catalogue-entry.ts";
import type { Network } from "../../core/programs/program.ts";
import { keptCatalogue, putCatalogue } from "../../store/programs/networks.ts";
import type { JobKind } from "../jobs/job-kind.ts";
import { programRows } from "../../store/programs/programs.ts";
import { Problem } from "../ground/problem.ts";
import { networkNamed } from "./networks.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithOutgoing } from "../ground/parts.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import { catalogueQuery, catalogueAnswerSchema, MAX_CATALOGUE } from "../../contract/programs.ts";

export type CatalogueAnswer = z.infer<typeof catalogueAnswerSchema>;

/** A catalogue of yesterday is asked for again, in milliseconds. */
const FRESH_MS = 24 * 3_600_000;

/** Searches in a network's catalogue, as it was given within a day, or is now. */
export async function searchCatalogue(
  desk: WithStore & WithOutgoing & WithTexts,
  site: OpenSite,
  { network, q }: z.infer<typeof catalogueQuery>,
): Promise<CatalogueAnswer> {
  const known = await networkWithCatalogue(desk, site, network);
  const [kept] = await keptCatalogue(desk.store, { network: known.id, address: known.catalogue });
  const isFresh = kept !== undefined && Date.now() - kept.pulledAt.getTime() < FRESH_MS;
  const { isJson, bytes, pulledAt } = isFresh ? kept : await pulled(desk, known);
  return { ...(await answerOf(desk, site, bytes, isJson, q)), pulledAt: pulledAt.toISOString() };
}

/** Asks a network for its catalogue, however lately it was asked. */
export const pullCatalogueJob: JobKind<
  WithStore & WithOutgoing & WithTexts,
  { network: string },
  { pulledAt: string }
> = {
  name: "catalogue.pull",
  run: async (desk, { site, input: { network } }) => {
    const { pulledAt } = await pulled(desk, await networkWithCatalogue(desk, site, network));
    return { pulledAt: pulledAt.toISOString() };
  },
  oneOf: (siteId, { network }) => `catalogue ${siteId} ${network}`.slice(0, 120),
};

async function networkWithCatalogue(desk: WithStore, site: OpenSite, network: string): Promise<Network> {
  const known = await networkNamed(desk, site, network);
  if (!known || known.catalogue === "")
    throw new Problem(
      422,
      "No catalogue is known",
      `Write down where ${network}’s catalogue is, or take a file of your own.`,
    );
  return known;
}

async function pulled(
  desk: WithStore & WithOutgoing & WithTexts,
  { id, name, catalogue: address }: Network,
): Promise<{ isJson: boolean; bytes: Uint8Array; pulledAt: Date }> {
  const read = await desk.outgoing.read(address, MAX_CATALOGUE);
  if (!read.ok)
    throw new Problem(
      422,
      "The catalogue cannot be read",
      `${name}’s catalogue ${read.reason}. Nothing was changed.`,
    );
  const isJson = /json/i.test(read.type) || /\.json\b/.test(address);
  // What is no catalogue does not take the place of one.
  await desk.texts.read({ do: "catalogue", bytes: read.bytes, isJson, words: [] });
  const [{ pulledAt }] = (await putCatalogue(desk.store, {
    network: id,
    address,
    isJson,
    bytes: read.bytes,
  })) as [{ pulledAt: Date }];
  return { isJson, bytes: read.bytes, pulledAt };
}

/** Searches in a catalogue that somebody has as a file. */
export function searchFile(
  desk: WithStore & WithTexts,
  site: OpenSite,
  bytes: Uint8Array,
  q: string | undefined,
): Promise<CatalogueAnswer> {
  return answerOf(desk, site, bytes, undefined, q);
}

async function answerOf(
  desk: WithStore & WithTexts,
  site: OpenSite,
  bytes: Uint8Array,
  isJson: boolean | undefined,
  q: string | undefined,
): Promise<CatalogueAnswer> {
  const words = q?.trim().toLowerCase().split(/\s+/).filter(Boolean) ?? [];
  const found = await desk.texts.read({ do: "catalogue", bytes, isJson, words });
  const programs = await programRows(desk.store, site.id);
  const knownAs = (entry: CatalogueEntry): CatalogueAnswer["items"][number]["known"] => {
    const there = programs.find(
      ({ terms }) =>
        terms.name.toLowerCase() === entry.name.toLowerCase() ||
        terms.domains.some((domain) => entry.domains.includes(domain)),
    );
    return there ? { id: there.id, name: there.terms.name, state: there.terms.state } : null;
  };
  return {
    items: found.entries.map((entry) => ({ ...entry, known: knownAs(entry) })),
    total: found.total,
    refused: found.refused,
    pulledAt: null,
  };
}
