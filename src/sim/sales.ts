import type { NetworkHost } from "../../demo/outside-world.ts";

/** A sale that a network knows of. */
export interface Sale {
  order: string;
  network: NetworkHost;
  account: string;
  label: string;
  shop: string;
  at: Date;
  cents: number;
  commission: number;
  state: "pending" | "approved" | "reversed";
}

/** A reader that a network sent to a shop. */
export interface Click {
  network: NetworkHost;
  account: string;
  label: string;
  shop: string;
  at: Date;
}

const clicks = new Map<string, Click>();
const sales: Sale[] = [];

/** Remembers a click and answers its number, by which the shop names it. */
export function rememberClick(click: Omit<Click, "at">): string {
  const number = String(clicks.size + 1);
  clicks.set(number, { ...click, at: new Date() });
  return number;
}

export function clickOf(number: string): Click | undefined {
  return clicks.get(number);
}

/** How many readers came by each label on each day (UTC). */
export function clicksByLabel(network: NetworkHost, account: string): Map<string, [Click, number]> {
  const counts = new Map<string, [Click, number]>();
  for (const click of clicks.values()) {
    if (click.network !== network || click.account !== account) continue;
    const key = [click.at.toISOString().slice(0, 10), click.shop, click.label].join(" ");
    counts.set(key, [click, (counts.get(key)?.[1] ?? 0) + 1]);
  }
  return counts;
}

/** Notes a sale under the next order number. */
export function noteSale(sale: Omit<Sale, "order" | "at" | "state">): Sale {
  const noted: Sale = { ...sale, order: `S-${1000 + sales.length}`, at: new Date(), state: "pending" };
  sales.push(noted);
  return noted;
}

/** Takes a sale back; undefined when there is none of that number. */
export function takeBack(order: string): Sale | undefined {
  const sale = sales.find((one) => one.order === order);
  if (sale) sale.state = "reversed";
  return sale;
}

export function salesOf(network: NetworkHost, account: string): Sale[] {
  return sales.filter((sale) => sale.network === network && sale.account === account);
}
