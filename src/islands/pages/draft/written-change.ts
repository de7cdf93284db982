/**
 * A change of a page as it is sent and kept. The text of a rich-text body stays as JSON in `bodyText`, in place of a
 * `body` in `change`: to take a long one apart and put it together again between two keys would be felt.
 */
export interface WrittenChange {
  change: Record<string, unknown>;
  bodyText?: string;
}

export const NOTHING_WRITTEN: WrittenChange = { change: {} };

export function isEmpty({ change, bodyText }: WrittenChange): boolean {
  return bodyText === undefined && Object.keys(change).length === 0;
}

/** A change over an earlier one. The text is either a body or source, whichever was written last. */
export function over(
  before: Record<string, unknown>,
  change: Record<string, unknown>,
): Record<string, unknown> {
  return hasText(change) ? { ...withoutText(before), ...change } : { ...before, ...change };
}

/** The same of written changes. */
export function writtenOver(before: WrittenChange, later: WrittenChange): WrittenChange {
  if (later.bodyText !== undefined)
    return { ...later, change: { ...withoutText(before.change), ...later.change } };
  const change = over(before.change, later.change);
  return before.bodyText === undefined || hasText(later.change)
    ? { change }
    : { change, bodyText: before.bodyText };
}

/** Writes out the texts of a change, which wait as functions. */
export function writtenOut({ body, ...others }: Record<string, unknown>): WrittenChange {
  const change: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(others))
    change[name] = typeof value === "function" ? (value as () => string)() : value;
  if (typeof body === "function") return { change, bodyText: (body as () => string)() };
  return { change: body === undefined ? change : { ...change, body } };
}

/** The whole change, its text with it. */
export function keptChange({ change, bodyText }: WrittenChange): Record<string, unknown> {
  return bodyText === undefined ? change : { ...change, body: JSON.parse(bodyText) as unknown };
}

/** The JSON that a page is saved with, by whoever saw this version of it. */
export function requestText({ change, bodyText }: WrittenChange, version: number): string {
  const text = JSON.stringify({ ...change, version });
  return bodyText === undefined ? text : `${text.slice(0, -1)},"body":${bodyText}}`;
}

function hasText(change: Record<string, unknown>): boolean {
  return change.body !== undefined || change.html !== undefined;
}

function withoutText({
  body: _body,
  html: _html,
  ...others
}: Record<string, unknown>): Record<string, unknown> {
  return others;
}
