import { ListFilter } from "lucide-react";
import type { ReactElement, ReactNode } from "react";
import { useTakenOver } from "../frame/later.tsx";
import { setAddressState, useAddress, useAddressState } from "../client/url-state.ts";
import { PopupButton } from "../panel/PopupButton.tsx";
import { useSearchKey } from "../keys/use-search-key.ts";
import * as say from "../words.ts";

/** A choice that stands in the parameter of the address that it names, as `FilterSelect` does. */
type Choosing = ReactElement<{ name: string }>;

/**
 * What stands above a list: how it is looked at, the words it is searched by (f goes there), what it is narrowed by, what
 * takes all of that away, and how many are left. Everything stands in the screen's address.
 */
export function FilterBar(props: {
  /** What words are looked for in; without it there is no search. */
  search?: { label: string; placeholder: string };
  /** How the list is looked at; it stands before the search. */
  view?: ReactNode;
  /** What narrows it, of which each is always in sight. */
  children?: ReactNode;
  /** What narrows it, by parameter of the address: what is set is in sight, all else waits behind one button. */
  choices?: readonly Choosing[];
  /** The parameters of the address that “show all” takes away. */
  narrows?: readonly string[];
  /** How many are left, in words. */
  found?: string | undefined;
  /** What is done with the list as a whole. */
  actions?: ReactNode;
}) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      {props.view}
      {props.search ? <Search {...props.search} /> : null}
      {props.children}
      {props.choices ? <Choices choices={props.choices} /> : null}
      {props.narrows ? <ShowAll narrows={props.narrows} /> : null}
      <span className="text-sm text-quiet" aria-live="polite">
        {props.found}
      </span>
      {props.actions ? <span className="ml-auto flex flex-wrap gap-2">{props.actions}</span> : null}
    </div>
  );
}

function Search({ label, placeholder }: { label: string; placeholder: string }) {
  const [q, setQ] = useAddressState("q");
  const search = useSearchKey();
  return (
    <input
      ref={search}
      className="field max-w-56"
      type="search"
      aria-label={label}
      aria-keyshortcuts="f"
      placeholder={`${placeholder}   ( f )`}
      value={q}
      readOnly={!useTakenOver()}
      onChange={(event) => setQ(event.target.value)}
    />
  );
}

function Choices({ choices }: { choices: readonly Choosing[] }) {
  const params = new URLSearchParams(useAddress());
  const isSet = ({ props }: Choosing): boolean => Boolean(params.get(props.name));
  const others = choices.filter((one) => !isSet(one));
  return (
    <>
      {choices.filter(isSet)}
      {others.length > 0 ? (
        <PopupButton
          label={say.narrowTheList}
          className="gap-2 [&_.field]:max-w-none [&_.field]:w-full"
          sign={ListFilter}
          word={say.narrow}
        >
          {others}
        </PopupButton>
      ) : null}
    </>
  );
}

function ShowAll({ narrows }: { narrows: readonly string[] }) {
  const params = new URLSearchParams(useAddress());
  if (!narrows.some((name) => params.get(name))) return null;
  return (
    <button
      type="button"
      className="text-sm text-accent underline"
      onClick={() => setAddressState(Object.fromEntries(narrows.map((name) => [name, ""])))}
    >
      {say.showAll}
    </button>
  );
}
