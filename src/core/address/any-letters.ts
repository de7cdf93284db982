import { caseFoldedKey } from "./path-key.ts";

/** Path keys that are found in any letter case. */
export class AnyLetters {
  private readonly keys = new Map<string, string[]>();

  add(key: string): void {
    const folded = caseFoldedKey(key);
    const alike = this.keys.get(folded) ?? [];
    if (!alike.includes(key)) this.keys.set(folded, [...alike, key].sort());
  }

  delete(key: string): void {
    const folded = caseFoldedKey(key);
    const rest = (this.keys.get(folded) ?? []).filter((other) => other !== key);
    if (rest.length > 0) this.keys.set(folded, rest);
    else this.keys.delete(folded);
  }

  /** The key that is meant: itself where it is there; else the first of those that differ in letter case alone. */
  find(key: string): string | undefined {
    const alike = this.keys.get(caseFoldedKey(key));
    return alike?.includes(key) ? key : alike?.[0];
  }
}
