/** Widths of columns in pixels, by their names. */
export type Widths = Readonly<Record<string, number>>;

/** No column is narrower, or wider, by hand. */
export const MIN_PX = 48;
export const MAX_PX = 1_200;

/** Reads widths as they are kept: `page:120,rel:90`; what is none is left out. */
export function readWidths(text: string): Widths {
  return Object.fromEntries(
    text.split(",").flatMap((one) => {
      const [, name, px] = /^(\w+):(\d{1,4})$/.exec(one) ?? [];
      return name ? [[name, withinBounds(Number(px))]] : [];
    }),
  );
}

/** Writes widths as they are kept. */
export function writeWidths(widths: Widths): string {
  return Object.entries(widths)
    .map(([name, px]) => `${name}:${Math.round(px)}`)
    .join(",");
}

/** The width that a column gets when it is to have this one. */
export function withinBounds(px: number): number {
  return Math.min(MAX_PX, Math.max(MIN_PX, Math.round(px)));
}

/** The widths without that of one column: it is as wide as it needs again. */
export function withoutWidth(widths: Widths, name: string): Widths {
  const { [name]: _, ...others } = widths;
  return others;
}
