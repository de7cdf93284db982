import { before } from "../../text/cut.ts";
import { rootless } from "../host.ts";

/** A host as somebody names it: alone, with a port, or within a whole address whose path does not count. */
export interface NamedHost {
  host: string;
  port: string | undefined;
  scheme: string | undefined;
}

/** Reads what was typed for a host; undefined when there is none in it. */
export function readHost(typed: string): NamedHost | undefined {
  const text = typed.trim();
  const scheme = /^(https?):\/\//i.exec(text)?.[1]?.toLowerCase();
  const authority = before(text.replace(/^(?:https?:)?\/\//i, ""), "/?#");
  const address = `http://${authority}/`;
  if (authority === "" || /[\s@\\]/.test(authority) || !URL.canParse(address)) return undefined;
  const { hostname } = new URL(address);
  return { host: rootless(hostname), port: /:(\d+)$/.exec(authority)?.[1], scheme };
}
