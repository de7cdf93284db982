import { tokenInputSchema } from "../../core/people/token.ts";
import { createToken, deleteToken, listTokens } from "../../desk/people/tokens.ts";
import { argumentsOf, HOUSE, WrongUsage, type Operating } from "./operate.ts";

const USAGE =
  "say “token list”, “token new NAME [--role owner|editor|reader] [--site KEY …] [--days N]” or “token end ID”.";
const DAY_MS = 86_400_000;

const OPTIONS = {
  role: { type: "string" },
  site: { type: "string", multiple: true },
  days: { type: "string" },
} as const;

/** What an operator does about the installation's API tokens: lists them, makes one, ends one. */
export async function tokenCommand(args: readonly string[], { store, say }: Operating): Promise<void> {
  const { what, which, values } = argumentsOf(args, OPTIONS, USAGE);
  const { role, site, days } = values;
  if (days !== undefined && !/^[1-9]\d{0,4}$/.test(days)) throw new WrongUsage(USAGE);
  const desk = { store };
  if (what === "list" && which === undefined) {
    for (const token of await listTokens(desk, null)) {
      const last = token.lastUsedAt
        ? `last used ${token.lastUsedAt} from ${token.lastUsedFrom}`
        : "never used";
      const until = token.expiresAt ? `until ${token.expiresAt}` : "without an end";
      say(
        `${token.id}  ${token.name}  ${token.role} of ${token.sites ? `sites ${token.sites.join(", ")}` : "every site"}  ${until}  ${last}`,
      );
    }
    return;
  }
  if (which === undefined) throw new WrongUsage(USAGE);
  if (what === "end") return deleteToken(desk, HOUSE, null, which);
  if (what !== "new") throw new WrongUsage(USAGE);
  const input = tokenInputSchema.safeParse({
    name: which,
    role: role ?? "editor",
    ...(site ? { sites: site } : {}),
    ...(days === undefined ? {} : { expiresAt: new Date(Date.now() + Number(days) * DAY_MS).toISOString() }),
  });
  if (!input.success) throw new WrongUsage(input.error.issues[0]!.message);
  const { token } = await createToken(desk, HOUSE, null, input.data);
  say(token!);
}
