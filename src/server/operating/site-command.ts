import { siteInputSchema } from "../../core/sites/site.ts";
import { createSite, listSites } from "../../desk/sites/sites.ts";
import { argumentsOf, HOUSE, WrongUsage, type Operating } from "./operate.ts";

const USAGE = "say “site list” or “site new KEY --name NAME --host NAME [--short NAME …] [--other NAME …]”.";

const OPTIONS = {
  name: { type: "string" },
  host: { type: "string" },
  short: { type: "string", multiple: true },
  other: { type: "string", multiple: true },
} as const;

/** What an operator does about sites: lists them, makes one. */
export async function siteCommand(args: readonly string[], { store, config, say }: Operating): Promise<void> {
  const { what, which: key, values } = argumentsOf(args, OPTIONS, USAGE);
  const { name, host, short = [], other = [] } = values;
  const desk = {
    store,
    deliveryPort: config.sitePort,
    workspaceHosts: [`${config.host}:${config.port}`, `localhost:${config.port}`],
  };
  if (what === "list" && key === undefined) {
    for (const site of await listSites(desk, HOUSE))
      say(`${site.key}  ${site.name}  ${site.hosts.map((one) => `${one.name} (${one.role})`).join(", ")}`);
    return;
  }
  if (what !== "new" || key === undefined || host === undefined) throw new WrongUsage(USAGE);
  const input = siteInputSchema.safeParse({
    key,
    name: name ?? key,
    hosts: [
      { name: host, role: "primary" },
      ...short.map((one) => ({ name: one, role: "short" })),
      ...other.map((one) => ({ name: one, role: "other" })),
    ],
  });
  if (!input.success) throw new WrongUsage(input.error.issues[0]!.message);
  const site = await createSite(desk, HOUSE, input.data);
  say(`${site.key} answers at ${site.hosts.find(({ role }) => role === "primary")!.url}`);
}
