import {
  createContext,
  lazy,
  startTransition,
  Suspense,
  useContext,
  useEffect,
  useRef,
  useState,
  useSyncExternalStore,
} from "react";
import type { ComponentType, ReactNode } from "react";
import * as say from "../words.ts";

const never = (): (() => void) => () => undefined;

/** How far below, or above, what is in sight something is fetched. */
const AHEAD = "2000px";

// Whether the screen around is taken over; undefined: there is none.
const Screened = createContext<boolean | undefined>(undefined);

/** A screen whose parts come in when it is taken over, all in one go that lets the browser breathe. */
export function ScreenTakenOver({ onTakenOver, children }: { onTakenOver(): void; children: ReactNode }) {
  const [isTakenOver, setTakenOver] = useState(false);
  useEffect(() => startTransition(() => setTakenOver(true)), []);
  useEffect(() => {
    if (isTakenOver) onTakenOver();
  }, [isTakenOver, onTakenOver]);
  return <Screened value={isTakenOver}>{children}</Screened>;
}

// Asks for a part again that could not be fetched.
const Again = createContext(() => {});

/** Whether this is drawn in a browser that has taken the screen over; what the server drew is taken over as it is. */
export function useTakenOver(): boolean {
  const screened = useContext(Screened);
  return useSyncExternalStore(
    never,
    () => screened ?? true,
    () => screened ?? false,
  );
}

/** A part that is fetched when it is wanted. */
export type Later<P> = ComponentType<P> & {
  /** Fetches it before it is to be shown; then it is there at once. */
  fetchSoon(): void;
};

/** A part that is fetched when it is shown; `place` stands there until then, and stays when it cannot be fetched. */
export function later<P extends object>(
  fetch: () => Promise<ComponentType<P>>,
  place: (props: P) => ReactNode = () => null,
): Later<P> {
  let Fetched: ComponentType<P> | undefined;
  const load = async (): Promise<ComponentType<P>> => (Fetched ??= await fetch());
  // What cannot be fetched takes nothing along: what stood in its place stays, and it can be asked for again.
  function NotFetched(props: P) {
    const again = useContext(Again);
    return (
      <>
        {place(props)}
        <p role="alert" className="text-bad">
          {say.thisPartCouldNotBeFetched}{" "}
          <button type="button" className="underline" onClick={again}>
            {say.tryAgain}
          </button>
        </p>
      </>
    );
  }
  const fetching = (): ComponentType<P> =>
    lazy(async () => {
      try {
        return { default: await load() };
      } catch (error) {
        console.error(error);
        return { default: NotFetched };
      }
    });
  function Place(props: P) {
    const isTakenOver = useTakenOver();
    const [Part, setPart] = useState(() => Fetched ?? fetching());
    const here = place(props);
    return isTakenOver ? (
      <Again value={() => setPart(fetching)}>
        <Suspense fallback={here}>
          <Part {...props} />
        </Suspense>
      </Again>
    ) : (
      here
    );
  }
  // What cannot be fetched now is asked for again when it is to be shown.
  return Object.assign(Place, { fetchSoon: () => void Promise.allSettled([load()]) });
}

/** The same for what is large and may stand far below: it is fetched when its place comes into sight. */
export function whenSeen<P extends object>(
  fetch: () => Promise<ComponentType<P>>,
  place: (props: P) => ReactNode,
): ComponentType<P> {
  const Part = later(fetch, place);
  return function WhenSeen(props: P) {
    const [isSeen, setSeen] = useState(false);
    const around = useRef<HTMLDivElement>(null);
    useEffect(() => {
      const observer = new IntersectionObserver(
        (entries) => {
          if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
        },
        { rootMargin: AHEAD },
      );
      observer.observe(around.current!);
      return () => observer.disconnect();
    }, []);
    return <div ref={around}>{isSeen ? <Part {...props} /> : place(props)}</div>;
  };
}
