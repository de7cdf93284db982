import { useCallback, useState } from "react";
import { readCookie, writeCookie } from "../client/cookies.ts";

/** Where a table's rows stand in a browser's window, in pixels. */
export interface Room {
  /** From the top of the page to the first row. */
  abovePx: number;
  /** How high the window is. */
  windowPx: number;
}

/** As in a window that is neither large nor small. */
const USUAL: Room = { abovePx: 240, windowPx: 800 };
const MAX_PX = 3_000;

/**
 * Where the rows of the table of that name stood when this browser last showed it, for who draws them before it is known
 * again; and tells where they stand now.
 */
export function useRoom(name: string): [room: Room, tell: (room: Room) => void] {
  const cookie = `room_${name}`;
  const [room] = useState(() => readRoom(readCookie(cookie)));
  const tell = useCallback(
    ({ abovePx, windowPx }: Room): void => {
      if (abovePx !== room.abovePx || windowPx !== room.windowPx)
        writeCookie(cookie, `${abovePx} ${windowPx}`);
    },
    [cookie, room],
  );
  return [room, tell];
}

/** The room that was told, within what a window may have; the usual one where none was. */
export function readRoom(told: string): Room {
  const [, above, window] = /^(\d{1,4}) (\d{1,4})$/.exec(told) ?? [];
  if (above === undefined || window === undefined) return USUAL;
  return { abovePx: Math.min(MAX_PX, Number(above)), windowPx: Math.min(MAX_PX, Number(window)) };
}
