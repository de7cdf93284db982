import {
  CLICK_CLASSES,
  DEVICES,
  type ClickClass,
  type ClickRecord,
  type Device,
  type MissRecord,
  type SpoolRecord,
} from "./record.ts";

const MAX_TEXT = 1024;

/** Writes a record as one line, newline included. Fields are separated by tabs; text is cut and kept free of controls. */
export function writeSpoolLine(record: ClickRecord | MissRecord): string {
  return record.kind === "click"
    ? clickLine(record.at, record.route, clickSource(record))
    : `m\t${record.at}\t${record.site}\t${record.class}\t${clean(record.host)}\t${clean(record.key)}\t${clean(record.referrer)}\n`;
}

/** The part of a click's line that tells who came from where: the same for all requests that a reader sends from one page. */
export function clickSource(
  click: Pick<ClickRecord, "class" | "device" | "visitor" | "referrer" | "page">,
): string {
  return `\t${click.class}\t${click.device}\t${click.visitor}\t${clean(click.referrer)}\t${clean(click.page)}\n`;
}

/** A click's whole line, newline included; `source` is what `clickSource` made. */
export function clickLine(at: number, route: string, source: string): string {
  // Many clicks share a millisecond; writing the number out anew is half the work of a line.
  if (at !== startAt) {
    startAt = at;
    start = `c\t${at}\t`;
  }
  return start + route + source;
}

let startAt = -1;
let start = "";

const CLICK = new RegExp(
  `^c\\t(\\d{1,16})\\t(\\d{1,18})\\t(${CLICK_CLASSES.join("|")})\\t(${DEVICES.join("|")})\\t([^\\t]*)\\t([^\\t]*)\\t([^\\t]*)$`,
);
const MISS = new RegExp(
  `^m\\t(\\d{1,16})\\t(\\d{1,18})\\t(${CLICK_CLASSES.join("|")})\\t([^\\t]*)\\t([^\\t]*)\\t([^\\t]*)$`,
);
// No click is older than the trade, and none is kept past the last year that the database and its months have a name for.
const FIRST_MOMENT = Date.UTC(2000, 0, 1);
const LAST_MOMENT = Date.UTC(2200, 0, 1);

function isMoment(at: number): boolean {
  return at >= FIRST_MOMENT && at < LAST_MOMENT;
}

/** A line that tells how many records could not be written before it, newline included. */
export function lostLine(at: number, records: number): string {
  return `l\t${at}\t${records}\n`;
}

const LOST = /^l\t(\d{1,16})\t(\d{1,12})$/;

/** Reads a line without its newline; undefined for one that is torn or was never ours. */
export function readSpoolLine(line: string): SpoolRecord | undefined {
  // One expression for the whole line: splitting it and checking each field took twice as long.
  const click = CLICK.exec(line);
  const lost = click ? null : LOST.exec(line);
  if (lost) {
    const lostAt = Number(lost[1]);
    return isMoment(lostAt) ? { kind: "lost", at: lostAt, records: Number(lost[2]) } : undefined;
  }
  const field = click ?? MISS.exec(line);
  const at = Number(field?.[1]);
  if (!field || !isMoment(at)) return undefined;
  if (!click) {
    return {
      kind: "miss",
      at,
      site: field[2]!,
      class: field[3] as ClickClass,
      host: field[4]!,
      key: field[5]!,
      referrer: field[6]!,
    };
  }
  return {
    kind: "click",
    at,
    route: field[2]!,
    class: field[3] as ClickClass,
    device: field[4] as Device,
    visitor: field[5]!,
    referrer: field[6]!,
    page: field[7]!,
  };
}

// eslint-disable-next-line no-control-regex -- control characters are what it takes out
const CONTROL = /[\u0000-\u001F\u007F]+/g;

function clean(text: string): string {
  const cut = text.length > MAX_TEXT ? text.slice(0, MAX_TEXT).toWellFormed() : text;
  CONTROL.lastIndex = 0;
  return CONTROL.test(cut) ? cut.replace(CONTROL, " ") : cut;
}
