import { ChevronRight } from "lucide-react";
import type { ReactNode, Ref } from "react";

/** What one rarely needs, behind its word; closed, it says in a line what it is at the moment. */
export function Behind(props: {
  word: string;
  says?: ReactNode;
  isOpen?: boolean;
  ref?: Ref<HTMLDetailsElement>;
  children: ReactNode;
}) {
  return (
    <details ref={props.ref} open={props.isOpen} className="group border-t border-line py-2">
      <summary className="flex cursor-pointer list-none flex-wrap gap-x-4">
        <span className="flex min-w-56 items-center gap-1 font-semibold">
          <ChevronRight size={15} aria-hidden className="text-quiet group-open:rotate-90" />
          {props.word}
        </span>
        <span className="pl-5 text-sm text-quiet group-open:invisible sm:pl-0">{props.says}</span>
      </summary>
      <div className="mt-2 mb-3 grid gap-4 pl-5">{props.children}</div>
    </details>
  );
}
