/**
 * How many slips of the finger lie between two words: a letter left out, put in, taken for another, or two neighbours
 * in each other's place (Damerau; each place is touched once). Counting stops above `most`.
 */
export function slipsBetween(one: string, other: string, most: number): number {
  if (Math.abs(one.length - other.length) > most) return most + 1;
  let before: number[] = [];
  let last = Array.from({ length: other.length + 1 }, (_, at) => at);
  for (let row = 1; row <= one.length; row += 1) {
    const now = [row];
    let least = row;
    for (let at = 1; at <= other.length; at += 1) {
      const same = one[row - 1] === other[at - 1];
      let slips = Math.min(last[at]! + 1, now[at - 1]! + 1, last[at - 1]! + (same ? 0 : 1));
      const isSwapped = row > 1 && at > 1 && one[row - 1] === other[at - 2] && one[row - 2] === other[at - 1];
      if (isSwapped) slips = Math.min(slips, before[at - 2]! + 1);
      now.push(slips);
      least = Math.min(least, slips);
    }
    if (least > most && Math.min(...last) > most) return most + 1;
    before = last;
    last = now;
  }
  return Math.min(last[other.length]!, most + 1);
}
