import type { DestinationKind } from "../../core/address/classify.ts";
import * as say from "../words.ts";

/** The word that always stands beside a knot's shape. */
export const KIND_WORD: Readonly<Record<DestinationKind, string>> = {
  external: "outside",
  page: "page",
  file: "file",
  route: say.shortLink,
  heading: say.inThisPage,
  mail: "mail",
  phone: "phone",
  broken: "leads nowhere",
};

const SHAPE: Readonly<Record<DestinationKind, React.ReactNode>> = {
  // A bight that leaves the rope.
  external: <path d="M8 2v3.2a3.6 3.6 0 1 0 3.4 2.4L14.5 4" />,
  page: <path d="M8 1.5 14 8l-6 6.500L2 8z" />,
  route: (
    <>
      <circle cx="5.8" cy="8" r="3.6" />
      <circle cx="10.2" cy="8" r="3.6" />
    </>
  ),
  file: <path d="M3.500 2.500h6l3 3v8h-9z" />,
  heading: <path d="M2 5.500h12M2 10.500h8" />,
  mail: <path d="M2 4h12v8.500H2zM2 4l6 5 6-5" />,
  phone: <path d="M5.500 1.500h5v13h-5zM7 12h2" />,
  broken: <path d="M2 8h3.500M10.500 8H14M6 4.500l1 2M10 11.500l-1-2M6.500 11.500l1-2M9.500 4.500l-1 2" />,
};

/** The sign of a destination's kind. It is drawn on the rope; `KIND_WORD` is always written beside it. */
export function Knot({ kind, size = 16 }: { kind: DestinationKind; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      className={kind === "broken" ? "shrink-0 text-bad" : "shrink-0 text-accent"}
      fill="none"
      stroke="currentColor"
      strokeWidth="1.8"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      {SHAPE[kind]}
    </svg>
  );
}
