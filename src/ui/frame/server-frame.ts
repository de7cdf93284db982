import { AsyncLocalStorage } from "node:async_hooks";
import { drawnBars } from "../charts/drawn-bars.ts";
import { newQueries } from "../client/queries.ts";
import { drawIn, type ServerFrame } from "./frame.ts";

const frames = new AsyncLocalStorage<ServerFrame>();
drawIn(() => frames.getStore());

/** Draws a screen on the server in a frame of its own; nobody's answers are ever another's. */
export function inServerFrame<T>(
  given: Pick<ServerFrame, "url" | "cookies" | "ask">,
  draw: () => Promise<T>,
): Promise<T> {
  return frames.run({ data: {}, ...given, queries: newQueries(), written: {}, drawBars: drawnBars }, draw);
}
