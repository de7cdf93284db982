import type { PageInput } from "../src/core/pages/page.ts";

/** Addresses of the simulated outside world, on the port it runs on. */
export interface Outside {
  harbour(item: string): string;
  quietMount(item: string): string;
  starling(item: string): string;
  /** Any other host of the simulated world. */
  at(host: string, path: string): string;
  /** A tracked link through the network Saltmarsh Partners. */
  saltmarsh(shop: string, to: string, sub: string): string;
  /** A tracked link through the network Gannet Row. */
  gannet(shop: string, to: string, sub: string): string;
}

export function outside(port: number): Outside {
  const at = (host: string, path: string): string => `http://${host}.localhost:${port}${path}`;
  const tracked = (network: string, account: string, shop: string, item: string, label: string): string =>
    at(network, `/c/${account}?to=${encodeURIComponent(at(shop, `/item/${item}`))}&${label}`);
  return {
    at,
    harbour: (item) => at("harbour-optics", item === "" ? "/" : `/item/${item}`),
    quietMount: (item) => at("quiet-mount", `/item/${item}`),
    starling: (item) => at("starling-eyepieces", `/item/${item}`),
    saltmarsh: (shop, to, sub) => tracked("go.saltmarsh-partners", `LL-2291/${shop}`, shop, to, `sub=${sub}`),
    gannet: (shop, to, sub) => tracked("hop.gannet-row", `lowlantern/${shop}`, shop, to, `label=${sub}`),
  };
}

/** A link as the demo's pages write it. */
export const a = (href: string, words: string, more = ""): string =>
  `<a href="${href.replaceAll("&", "&amp;")}"${more}>${words}</a>`;

/** A page of the demo, before it is checked and completed. */
export type DemoPage = Partial<PageInput> & Pick<PageInput, "path" | "title" | "html" | "publish">;
