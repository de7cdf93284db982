/**
 * Counts how many signs of text the built-in functions look at while `work` runs: what growing text costs, the same on
 * every machine. Expressions count what they move over; the lint rules see to it that none goes back.
 */
export function countedWork(work: () => unknown): number {
  let signs = 0;
  const undo: (() => void)[] = [];
  const patch = (
    owner: object,
    name: string,
    cost: (self: string, args: unknown[], result: unknown) => number,
  ): void => {
    const original = (owner as Record<string, (...args: unknown[]) => unknown>)[name]!;
    Object.defineProperty(owner, name, {
      configurable: true,
      writable: true,
      value(this: unknown, ...args: unknown[]) {
        const result = Reflect.apply(original, this, args) as unknown;
        signs += 1 + cost(this as string, args, result);
        return result;
      },
    });
    undo.push(() =>
      Object.defineProperty(owner, name, { configurable: true, writable: true, value: original }),
    );
  };
  const found = (self: string, args: unknown[], result: unknown): number => {
    const from = Math.max(0, Number(args[1] ?? 0));
    return Math.abs((result === -1 ? self.length : (result as number)) - from) + String(args[0]).length;
  };
  const text = String.prototype;
  patch(text, "indexOf", found);
  patch(text, "includes", (self) => self.length);
  for (const name of ["toLowerCase", "toUpperCase", "normalize", "trim", "trimStart", "replaceAll", "split"])
    patch(text, name, (self) => self.length);
  // A slice shares the bytes of its text: what is made by joining counts, what is cut off does not.
  patch(Array.prototype, "join", (_self, _args, result) => (result as string).length);
  patch(Set.prototype, "has", () => 0);
  const exec = RegExp.prototype.exec;
  Object.defineProperty(RegExp.prototype, "exec", {
    configurable: true,
    writable: true,
    value(this: RegExp, subject: string) {
      const from = this.global || this.sticky ? this.lastIndex : 0;
      const match = Reflect.apply(exec, this, [subject]) as RegExpExecArray | null;
      const anchored = this.sticky || this.source.startsWith("^");
      signs +=
        1 +
        (match
          ? match.index - from + match[0].length
          : anchored
            ? 1
            : Math.max(0, String(subject).length - from));
      return match;
    },
  });
  undo.push(() =>
    Object.defineProperty(RegExp.prototype, "exec", { configurable: true, writable: true, value: exec }),
  );
  try {
    work();
  } finally {
    for (const back of undo) back();
  }
  return signs;
}
