/** An absolute or site-relative address that has been through `repairAddress`: never raw paste. */
export type Address = string & { readonly __repaired: unique symbol };

/** What an address is made for: a web page, a mail, a phone call, a path of our own site, a heading in this page. */
export type AddressForm = "web" | "mail" | "phone" | "path" | "fragment";

/** One thing that was mended, as told to the person who pasted. */
export interface Repair {
  code: RepairCode;
  message: string;
}

export type RepairCode =
  | "trimmed"
  | "unwrapped"
  | "entities"
  | "doubled-scheme"
  | "scheme-spelling"
  | "slashes"
  | "missing-scheme"
  | "case"
  | "idna"
  | "encoded"
  | "rooted"
  | "words"
  | "broken-lines"
  | "punctuation"
  | "host-dot";

/** Something that is allowed and worth a second look. */
export interface Warning {
  code: WarningCode;
  message: string;
}

export type WarningCode =
  "look-alike" | "bare-ip" | "http" | "workspace-host" | "shortener-hop" | "foreign-tracking";

export type RefusalCode =
  "empty" | "not-an-address" | "scheme" | "control-characters" | "credentials" | "host" | "too-long";

/** Why an address cannot be used, and how it would be right. */
export interface Refusal {
  code: RefusalCode;
  message: string;
}

/** What `repairAddress` answers: the address with what was done to it, or the reason why there is none. */
export type Repaired =
  | {
      ok: true;
      address: Address;
      form: AddressForm;
      repairs: Repair[];
      warnings: Warning[];
      /** Other good readings, each as it would be pasted to be taken. */
      others: string[];
    }
  | { ok: false; reason: Refusal; repairs: Repair[]; others: string[] };

/** The longest address accepted after repair, in characters (common limit of browsers and proxies in the field). */
export const MAX_ADDRESS_LENGTH = 2048;
