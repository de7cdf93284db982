import { serverFrame } from "../frame/frame.ts";

let came: Readonly<Record<string, string>> = {};

/** Takes up what the server wrote for this screen, by its names. */
export function takeWritten(given: Readonly<Record<string, string>>): void {
  came = given;
}

/**
 * What `write` writes, by a name that says all that it depends on. What writes dates and numbers takes a browser so long to
 * make that what the server wrote comes along with its screen, and is taken from there.
 */
export function written(name: string, write: () => string): string {
  const frame = serverFrame();
  if (!frame) return came[name] ?? write();
  return (frame.written[name] ??= write());
}
