import type { LedgerPlace } from "../../../core/ledger/ledger.ts";
import type { ChangedRow } from "../../../store/ledger/ledger-reading.ts";
import type { Address } from "../../../core/address/address.ts";

/** What becomes of that which stands inside a link. */
export type InsideChange =
  /** The link is taken off, its words or picture stay. */
  | { do: "unlink" }
  /** It gives way to this, where it is still what it `was`; `words` tell it to people. */
  | { do: "put"; html: string; words: string; was: { words: string; picture: string | null } };

/** New stored parts of one link of a document. */
export interface PlannedLink {
  ordinal: number;
  href: string;
  override: string | null;
  inside?: InsideChange;
  before: Pick<ChangedRow, "href" | "override" | "words">;
}

/** What is to be changed in one document, told by its page's stamp. */
export interface PlannedDocument {
  pageId: string;
  kind: Exclude<LedgerPlace, "read" | "repeated">;
  where: string;
  edition: "both" | "draft" | "published";
  stamp: string;
  links: PlannedLink[];
}

/** What becomes of one link of the ledger: its new parts, nothing, or the reason why it stays. */
export type RowChange = Pick<PlannedLink, "href" | "override" | "inside"> | { refused: string } | undefined;

/** All that a change of many would do. */
export interface BulkPlan {
  documents: PlannedDocument[];
  /** Route's id to its new destination. */
  routes: { id: string; address: string; before: string; after: Address }[];
  /** Routes that get another address. */
  moves: { id: string; before: string; after: string }[];
  /** Links of pages that are written elsewhere: what is wanted of them goes on the list to do there. */
  elsewhere: {
    link: string;
    pageId: string;
    kind: LedgerPlace;
    where: string;
    words: string;
    before: string;
    after: string;
  }[];
  refused: { where: string; message: string }[];
  /** Ids of the short links that were made for it. */
  made: string[];
}
