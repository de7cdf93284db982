import type { QueryClient } from "@tanstack/react-query";
import type { BarsChart } from "../charts/chart.ts";

/** What the frame of the workspace says of who looks at what: attributes of its document, and of a request on the server. */
export interface FrameData {
  siteLanguage?: string | undefined;
  siteTimeZone?: string | undefined;
  /** What whoever looks may do here. */
  role?: string | undefined;
  person?: string | undefined;
  /** There, when the site is archived. */
  rests?: string | undefined;
}

/** What a screen stands in while the server draws it. */
export interface ServerFrame {
  data: FrameData;
  /** The address of the screen. */
  url: URL;
  /** What the browser keeps and has told. */
  cookies: string;
  queries: QueryClient;
  /** What it has written in the site's language, by names. */
  written: Record<string, string>;
  /** Makes a call of the API as whoever asked for the screen. */
  ask(path: string, init: RequestInit): Promise<Response>;
  /** A chart as SVG of that width. */
  drawBars(bars: BarsChart, widthPx: number): string;
}

let read: () => ServerFrame | undefined = () => undefined;

/** Lets screens on the server be drawn in the frame that this gives; what browsers have is never asked there. */
export function drawIn(given: () => ServerFrame | undefined): void {
  read = given;
}

/** The frame that the server draws in; undefined in a browser. */
export function serverFrame(): ServerFrame | undefined {
  return typeof document === "undefined" ? read() : undefined;
}

/** What the frame says, here or there. */
export function frameData(): FrameData {
  if (typeof document === "undefined") return read()?.data ?? {};
  return document.documentElement.dataset;
}

/** The screen's address: of its parts, those that are asked for here and there. */
export function screenAddress(): Pick<URL, "host" | "pathname" | "search"> {
  if (typeof document !== "undefined") return location;
  return read()?.url ?? { host: "", pathname: "", search: "" };
}
