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
}

const clicks = new Map<string, Click>();
const sales: Sale[] = [];

/** Remembers a click and answers its number, by which the shop names it. */
export function rememberClick(click: Click): string {
  const number = String(clicks.size + 1);
  clicks.set(number, click);
  return number;
}

export function clickOf(number: string): Click | undefined {
  return clicks.get(number);
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
