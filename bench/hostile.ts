import { FRAGMENTS, READERS, repeated } from "../tests/support/hostile.ts";

const SIZES = [25_000, 50_000, 100_000];
const MAX_SHOWN = 40;

/** Feeds every function that reads text from outside its worst inputs at 1, 2 and 4 times the size: time against size. */
export async function hostile(): Promise<void> {
  const rows: { reader: string; fragment: string; ms: number[] }[] = [];
  for (const [reader, read] of Object.entries(READERS))
    for (const fragment of FRAGMENTS) {
      const ms = SIZES.map((size) => {
        const text = repeated(fragment, size);
        const began = performance.now();
        read(text);
        return performance.now() - began;
      });
      rows.push({ reader, fragment, ms });
    }
  rows.sort((a, b) => b.ms.at(-1)! - a.ms.at(-1)!);
  console.log(
    `${rows.length} readers and inputs; the ${MAX_SHOWN} slowest, milliseconds at ${SIZES.join(", ")} signs:`,
  );
  console.table(
    rows.slice(0, MAX_SHOWN).map(({ reader, fragment, ms }) => ({
      reader,
      fragment: JSON.stringify(fragment),
      ...Object.fromEntries(SIZES.map((size, index) => [size, Number(ms[index]!.toFixed(1))])),
      "growth, 4 times the size": Number((ms[2]! / Math.max(ms[0]!, 0.05)).toFixed(1)),
    })),
  );
}
