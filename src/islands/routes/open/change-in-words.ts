/** One entry of a route's history. */
export interface RouteChangeEntry {
  at: string;
  by: string;
  action: string;
  fields: Record<string, unknown>;
}

const ACTIONS: Readonly<Record<string, string>> = {
  "route.create": "made",
  "route.delete": "deleted",
  "route.restore": "restored",
  "route.zero": "count reset",
  "route.unzero": "counted from the beginning again",
  "routes.tag": "tagged, with others",
  "routes.untag": "a tag removed, with others",
  "routes.switch": "switched, with others",
  "routes.delete": "deleted, with others",
  "routes.robots": "robots settings changed, with others",
  "routes.retarget": "destination changed, with others",
  "routes.mend": "fixed",
  "routes.move": "moved, with others",
};

const FIELDS: Readonly<Record<string, string>> = {
  destination: "leads to",
  address: "address",
  host: "host",
  status: "answers with",
  enabled: "on",
  title: "title",
  aliases: "other spellings",
  validUntil: "until",
  validFrom: "from",
};

/** What was done to a route, in few words. */
export function changeInWords({ action, fields }: RouteChangeEntry): string {
  const known = ACTIONS[action];
  if (known) return known;
  const told = Object.entries(fields)
    .filter(([name]) => name in FIELDS)
    .map(([name, value]) => `${FIELDS[name]} ${valueInWords(value)}`);
  return told.length > 0 ? told.join(", ") : "settings changed";
}

function valueInWords(value: unknown): string {
  if (value === null || value === "") return "none";
  if (typeof value === "boolean") return value ? "yes" : "no";
  return Array.isArray(value) ? value.join(" ") || "none" : String(value);
}
