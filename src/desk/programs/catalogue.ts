import { z } from "zod";
import { type CatalogueEntry } from "../../core/programs/catalogue.ts";
import { programRows } from "../../store/programs/programs.ts";
import { Problem } from "../ground/problem.ts";
import { networkNamed } from "./networks.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithOutgoing } from "../ground/parts.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import { catalogueQuery, catalogueAnswerSchema, MAX_CATALOGUE } from "../../contract/programs.ts";

export type CatalogueAnswer = z.infer<typeof catalogueAnswerSchema>;

/** Asks a network for its catalogue and searches in it. */
export async function searchCatalogue(
  desk: WithStore & WithOutgoing & WithTexts,
  site: OpenSite,
  { network, q }: z.infer<typeof catalogueQuery>,
): Promise<CatalogueAnswer> {
  const known = await networkNamed(desk, site, network);
  if (!known || known.catalogue === "")
    throw new Problem(
      422,
      "No catalogue is known",
      `Write down where ${network}’s catalogue is, or take a file of your own.`,
    );
  const read = await desk.outgoing.read(known.catalogue, MAX_CATALOGUE);
  if (!read.ok)
    throw new Problem(
      422,
      "The catalogue cannot be read",
      `${network}’s catalogue ${read.reason}. Nothing was changed.`,
    );
  const isJson = /json/i.test(read.type) || /\.json\b/.test(known.catalogue);
  return answerOf(desk, site, read.bytes, isJson, q);
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
  };
}
