import type { IncomingMessage, ServerResponse } from "node:http";
import Papa from "papaparse";
import { escape, page } from "./page.ts";
import { clickOf, clicksByLabel, noteSale, rememberClick, salesOf, takeBack } from "./sales.ts";
import { NETWORKS, REPORT_COLUMNS, SHOPS, type NetworkHost, type Shop } from "../../demo/outside-world.ts";

type Answer = (url: URL, request: IncomingMessage, response: ServerResponse) => void;

/** A shop: a page for each product that shows what arrived, and a button that buys. */
export function shop(host: string, { name, products, commission, flat }: Shop): Answer {
  return (url, request, response) => {
    if (url.pathname === "/banner.svg") return send(response, "image/svg+xml", banner(name));
    const key = url.pathname.replace(/^\/(?:item\/|buy\/)?|\/$/g, "");
    const product = products[key];
    if (key !== "" && !product)
      return page(response, 404, name, `<p>${name} has nothing under ${escape(url.pathname)}.</p>`);
    if (product && url.pathname.startsWith("/buy/") && request.method === "POST") {
      const click = clickOf(/(?:^|;\s*)arrived=(\d+)/.exec(request.headers.cookie ?? "")?.[1] ?? "");
      const [, cents] = product;
      const sale =
        click &&
        noteSale({ ...click, cents, commission: flat ? commission : Math.round((cents * commission) / 100) });
      const told = sale
        ? `<p>Your order is <strong data-order>${sale.order}</strong>.</p>`
        : "<p>Thank you.</p>";
      return page(response, 200, "Bought", `<h1>Bought</h1>${told}`);
    }
    const arrived = ["partner", "sub"].map((parameter) => {
      const value = url.searchParams.get(parameter);
      return `<dt>${parameter}</dt><dd data-arrived="${parameter}">${value ? escape(value) : "did not arrive"}</dd>`;
    });
    // Which click brought the reader is kept as a cookie, as long as the tab is open.
    const click = url.searchParams.get("click");
    if (click && /^\d+$/.test(click)) response.setHeader("Set-Cookie", `arrived=${click}; Path=/`);
    const list = Object.entries(products).map(
      ([path, [title]]) => `<li><a href="/item/${path}">${title}</a></li>`,
    );
    const buy = product ? `<form method="post" action="/buy/${key}"><button>Buy</button></form>` : "";
    const title = product?.[0] ?? name;
    page(
      response,
      200,
      title,
      `<h1>${title}</h1>${buy}<dl>${arrived.join("")}</dl><ul>${list.join("")}</ul><p>A simulated shop on ${host}.</p>`,
    );
  };
}

/** A network: tracking links, its catalogue as JSON and CSV, its report, and a way to take a sale back. */
export function network(host: NetworkHost): Answer {
  return (url, request, response) => {
    switch (url.pathname) {
      case "/catalogue.json":
        return send(response, "application/json", JSON.stringify({ programs: catalogue(host, url.port) }));
      case "/catalogue.csv":
        return send(
          response,
          "text/csv",
          Papa.unparse(catalogue(host, url.port).map((row) => ({ ...row, domains: row.domains.join(" ") }))),
        );
      case "/half.json":
        response.writeHead(200, { "Content-Type": "application/json", "Content-Length": "100000" });
        return void response.write('{"programs": [', () => response.destroy());
      case "/report.csv":
        return send(response, "text/csv", report(host, url.searchParams.get("account") ?? ""));
      case "/return":
        return request.method === "POST" && takeBack(url.searchParams.get("order") ?? "")
          ? page(response, 200, "Taken back", "<p>The sale was taken back.</p>")
          : page(response, 404, "No such order", "<p>There is no order of that number.</p>");
      default:
        return track(host, url, response);
    }
  };
}

// A tracking redirect: /c/ACCOUNT/SHOP?to=ADDRESS&sub=LABEL leads to the shop with partner, sub and click in its query.
function track(host: NetworkHost, url: URL, response: ServerResponse): void {
  const [, , account, key] = url.pathname.split("/");
  const { label, shops } = NETWORKS[host];
  const name = shops.some((one) => one === key) ? `${key}.localhost` : undefined;
  if (!account || !name)
    return page(response, 404, "Unknown program", "<p>This tracking link names no program.</p>");
  const port = url.port ? `:${url.port}` : "";
  const target = new URL(url.searchParams.get("to") ?? "/", `http://${name}${port}`);
  if (target.hostname !== name)
    return page(response, 400, "Not this shop", "<p>The destination is not the program's.</p>");
  const said = url.searchParams.get(label) ?? "";
  target.searchParams.set("partner", account);
  if (said) target.searchParams.set("sub", said);
  target.searchParams.set("click", rememberClick({ network: host, account, label: said, shop: name }));
  response
    .writeHead(302, {
      Location: target.href,
      "Set-Cookie": `click=${encodeURIComponent(account)}; Max-Age=2592000`,
    })
    .end();
}

function catalogue(host: NetworkHost, port: string) {
  const { label, shops } = NETWORKS[host];
  return shops.map((key) => {
    const domain = `${key}.localhost`;
    const { name, about, category, commission, flat, cookieDays, needsReferrer } = SHOPS[domain]!;
    return {
      name,
      about,
      category,
      domains: [domain],
      siteAddress: `http://${domain}:${port}/`,
      commission: flat ? (commission / 100).toFixed(2) : String(commission),
      commissionKind: flat ? "flat" : "percent",
      commissionFor: "sale",
      currency: "EUR",
      cookieDays,
      epc30: (commission * (flat ? 0.012 : 3.1)).toFixed(2),
      template: `http://${host}:${port}/c/{id}/${key}?to={destination}&${label}={sub}`,
      needsReferrer: needsReferrer ? "yes" : "no",
    };
  });
}

function report(host: NetworkHost, account: string): string {
  const rows = salesOf(host, account).map((sale) => [
    sale.order,
    "sale",
    sale.at.toISOString(),
    SHOPS[sale.shop]!.name,
    sale.label,
    (sale.cents / 100).toFixed(2),
    (sale.commission / 100).toFixed(2),
    "EUR",
    sale.state,
    "",
  ]);
  const counts = [...clicksByLabel(host, account).values()].map(([{ at, shop, label }, clicks]) => [
    "",
    "click",
    at.toISOString().slice(0, 10),
    SHOPS[shop]!.name,
    label,
    "",
    "",
    "",
    "",
    String(clicks),
  ]);
  return Papa.unparse([REPORT_COLUMNS, ...rows, ...counts]);
}

function banner(name: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="100"><rect width="300" height="100" fill="#22304a"/><circle cx="252" cy="40" r="22" fill="#e9dcb4"/><text x="18" y="58" font-family="sans-serif" font-size="22" fill="#fff">${escape(name)}</text></svg>`;
}

function send(response: ServerResponse, type: string, text: string): void {
  response.writeHead(200, { "Content-Type": `${type}; charset=utf-8` }).end(text);
}
