import * as say from "./words.ts";

interface LinkThere {
  href: string;
  rel: string | null;
  target: string | null;
}

/** What differs of a link from another form of it: the address where it is another, rel and target. */
export function Attributes({ of, other }: { of: LinkThere; other: LinkThere }) {
  const { href, rel, target } = of;
  return (
    <span className="grid font-mono text-[0.82em] print:hidden">
      {href === other.href ? null : <span className="wrap-anywhere">{href}</span>}
      <span className={rel === other.rel ? "text-quiet" : ""}>{rel ? `rel="${rel}"` : say.noRel}</span>
      <span className={target === other.target ? "text-quiet" : ""}>
        {target ? `target="${target}"` : say.noTarget}
      </span>
    </span>
  );
}
