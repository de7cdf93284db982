import { DataTypes, Model, type ModelAttributes, type ModelStatic, type Sequelize } from "sequelize";
import type { Crop, Focus } from "../../core/files/picture.ts";
import type { Address } from "../../core/address/address.ts";
import type { Body } from "../../core/pages/body/body.ts";
import type { BodyHtml } from "../../core/pages/body/to-html.ts";
import type { Placement } from "../../core/pages/page.ts";
import type { Rule } from "../../core/rules/rule.ts";
import type { Role } from "../../core/people/choices.ts";
import type { Notice } from "../../core/routes/route.ts";
import type { AfterEnd, InContent, QueryMode, RouteKind, RouteStatus } from "../../core/routes/choices.ts";
import type { Disclosure } from "../../core/programs/partner.ts";
import type { SiteOrigin } from "../../core/sites/site-origin.ts";
import type { Swap } from "../../core/rules/swaps/swap.ts";
import type { DeliveredSiteSettings } from "../../core/sites/delivered-site.ts";
import type { PageSearch } from "../../core/pages/search.ts";
import type { RouteDefaults } from "../../core/sites/route-defaults.ts";
import type { MissPolicy } from "../../core/sites/site.ts";
import type { MatchKind } from "../../core/routes/match/match-kind.ts";

interface Stamped {
  createdAt: Date;
  updatedAt: Date;
}

export interface SiteRow extends Stamped {
  id: string;
  key: string;
  name: string;
  tagline: string;
  shortPrefix: string;
  /** How many paid links a page of usual length bears, and a long one of at least `longWords` words. */
  paidLimit: number;
  paidLimitLong: number;
  longWords: number;
  misses: MissPolicy;
  disclosure: Disclosure;
  /** How many months clicks themselves are kept; their counts stay. */
  clickMonths: number;
  /** How many months its history is kept. */
  historyMonths: number;
  /** Since when it answers readers as before and changes no more; null: it does not rest. */
  archivedAt: Date | null;
  country: string;
  /** A language tag (BCP 47): dates, numbers and money are shown in it. */
  language: string;
  /** An IANA time zone; empty: the browser's. */
  timeZone: string;
  /** What new routes are like that do not say otherwise. */
  defaults: RouteDefaults;
  /** What readers and robots get of it. */
  delivered: DeliveredSiteSettings;
  /** Where its pages stand that are not written here; null: all are. */
  origin: SiteOrigin | null;
  /** What readers get in place of addresses in pages, in this order. */
  swaps: Swap[];
  /** Whose feed it is, whatever becomes of its hosts. */
  feedId: string;
  version: number;
}

export interface HostRow {
  id: string;
  siteId: string;
  name: string;
  role: "primary" | "short" | "other" | "former";
  /** The host that a former one leads to, path by path; null for all others. */
  leadsTo: string | null;
}

export interface PersonRow extends Stamped {
  id: string;
  email: string;
  name: string;
  /** What they may do on every site; null: only what single sites say. */
  role: Role | null;
  passwordHash: string;
  /** From then on they may not come in any more. */
  deactivatedAt: Date | null;
}

export interface SessionRow {
  tokenHash: string;
  id: string;
  personId: string;
  createdAt: Date;
  expiresAt: Date;
  lastSeenAt: Date;
  /** Where it was begun from: an address, or the network of one. */
  place: string;
  /** The browser, as it names itself. */
  agent: string;
}

export interface TokenRow extends Stamped {
  id: string;
  name: string;
  tokenHash: string;
  role: Role;
  expiresAt: Date | null;
  lastUsedAt: Date | null;
  lastUsedFrom: string;
  /** Whose it is; null: the installation's. */
  personId: string | null;
  /** The sites that it is for; null: all. */
  siteIds: string[] | null;
}

/** One link of a page as lists and searches need it. */
export interface StoredLink {
  href: string;
  words: string;
}

/** A page as it was published: what readers get until the next publication. */
export interface PublishedPage {
  path: string;
  title: string;
  description: string;
  category: string;
  inNavigation: boolean;
  /** Absent in what was published before there was any. */
  search?: PageSearch;
  /** When it was published, in ISO 8601; absent in what was published before that was noted. */
  at?: string;
  html: BodyHtml;
  /** Path key of each inside link to the id of the page that stood there when the link was saved. */
  bound?: Record<string, string>;
  placement?: Placement | null;
}

export interface PageRow extends Stamped {
  id: string;
  siteId: string;
  kind: "page" | "block";
  placement: Placement | null;
  path: string;
  key: string;
  title: string;
  description: string;
  category: string;
  inNavigation: boolean;
  search: PageSearch;
  body: Body;
  html: BodyHtml;
  links: StoredLink[];
  linkKeys: string[];
  bound: Record<string, string>;
  published: PublishedPage | null;
  publishedKey: string | null;
  publishedVersion: number | null;
  publishedAt: Date | null;
  version: number;
  updatedBy: string;
  /** False for a page from before the gate of addresses that was not looked through yet. */
  admitted: boolean;
  deletedAt: Date | null;
}

export interface FileRow extends Stamped {
  id: string;
  siteId: string;
  path: string;
  name: string;
  mediaType: string;
  bytes: number;
  width: number | null;
  height: number | null;
  digest: string;
  alt: string;
  /** Which part of a picture is shown; null: all. */
  crop: Crop | null;
  focus: Focus | null;
  /** Counts what its forms are made of, and names what those that there are were made of. */
  shape: number;
  formed: number | null;
  createdBy: string;
  deletedAt: Date | null;
}

export interface RuleSetRow {
  siteId: string;
  version: number;
  rules: Rule[];
  createdBy: string;
  createdAt: Date;
}

export interface RouteRow extends Stamped {
  id: string;
  siteId: string;
  kind: RouteKind;
  host: string | null;
  match: MatchKind;
  address: string;
  aliases: string[];
  destination: Address | null;
  destinationKey: string | null;
  status: RouteStatus;
  query: QueryMode;
  parameters: string;
  notice: Notice | null;
  title: string;
  tags: string[];
  noindex: boolean;
  nofollow: boolean;
  counted: boolean;
  enabled: boolean;
  replacesPage: boolean;
  validFrom: Date | null;
  validUntil: Date | null;
  afterEnd: AfterEnd;
  endDestination: Address | null;
  inContent: InContent;
  contentPages: string[];
  countedFrom: Date | null;
  clicksBefore: string;
  /** Address, aliases, title and destination in lower case, for searching. */
  search: string;
  version: number;
  deletedAt: Date | null;
}

export interface MissRow {
  id: string;
  siteId: string;
  host: string;
  key: string;
  times: number;
  bots: number;
  firstSeen: Date;
  lastSeen: Date;
  referrers: string[];
  resolvedAt: Date | null;
  ignoredAt: Date | null;
}

/** A row as Sequelize hands it out: the fields, and save and update. */
export type Row<T extends object> = Model<T, Partial<T>> & T;
type Table<T extends object> = ModelStatic<Row<T>>;

const { BIGINT, BOOLEAN, DATE, INTEGER, JSONB, TEXT, ARRAY, UUID } = DataTypes;
const serial = { type: BIGINT, primaryKey: true, autoIncrement: true };

/** The models of one connection; SQL names are the snake-case forms of the fields. */
export function defineModels(sequelize: Sequelize) {
  const define = <T extends object>(
    table: string,
    attributes: ModelAttributes,
    timestamps = false,
  ): Table<T> =>
    sequelize.define(table, attributes, {
      tableName: table,
      underscored: true,
      timestamps,
    }) as unknown as Table<T>;

  return {
    sites: define<SiteRow>(
      "sites",
      {
        id: serial,
        key: TEXT,
        name: TEXT,
        tagline: TEXT,
        shortPrefix: TEXT,
        paidLimit: INTEGER,
        paidLimitLong: INTEGER,
        longWords: INTEGER,
        misses: JSONB,
        disclosure: JSONB,
        clickMonths: INTEGER,
        historyMonths: INTEGER,
        archivedAt: DATE,
        country: TEXT,
        language: TEXT,
        timeZone: TEXT,
        defaults: JSONB,
        delivered: JSONB,
        origin: JSONB,
        swaps: JSONB,
        feedId: UUID,
        version: INTEGER,
      },
      true,
    ),
    hosts: define<HostRow>("hosts", { id: serial, siteId: BIGINT, name: TEXT, role: TEXT, leadsTo: TEXT }),
    people: define<PersonRow>(
      "people",
      { id: serial, email: TEXT, name: TEXT, role: TEXT, passwordHash: TEXT, deactivatedAt: DATE },
      true,
    ),
    sessions: define<SessionRow>("sessions", {
      tokenHash: { type: TEXT, primaryKey: true },
      id: UUID,
      personId: BIGINT,
      createdAt: DATE,
      expiresAt: DATE,
      lastSeenAt: DATE,
      place: TEXT,
      agent: TEXT,
    }),
    tokens: define<TokenRow>(
      "tokens",
      {
        id: serial,
        name: TEXT,
        tokenHash: TEXT,
        role: TEXT,
        expiresAt: DATE,
        lastUsedAt: DATE,
        lastUsedFrom: TEXT,
        personId: BIGINT,
        siteIds: ARRAY(BIGINT),
      },
      true,
    ),
    pages: define<PageRow>(
      "pages",
      {
        id: serial,
        siteId: BIGINT,
        kind: TEXT,
        placement: JSONB,
        path: TEXT,
        key: TEXT,
        title: TEXT,
        description: TEXT,
        category: TEXT,
        inNavigation: BOOLEAN,
        search: JSONB,
        body: JSONB,
        html: TEXT,
        links: JSONB,
        linkKeys: ARRAY(TEXT),
        bound: JSONB,
        published: JSONB,
        publishedKey: TEXT,
        publishedVersion: INTEGER,
        publishedAt: DATE,
        version: INTEGER,
        updatedBy: TEXT,
        admitted: BOOLEAN,
        deletedAt: DATE,
      },
      true,
    ),
    files: define<FileRow>(
      "files",
      {
        id: serial,
        siteId: BIGINT,
        path: TEXT,
        name: TEXT,
        mediaType: TEXT,
        bytes: INTEGER,
        width: INTEGER,
        height: INTEGER,
        digest: TEXT,
        alt: TEXT,
        crop: JSONB,
        focus: JSONB,
        shape: INTEGER,
        formed: INTEGER,
        createdBy: TEXT,
        deletedAt: DATE,
      },
      true,
    ),
    ruleSets: define<RuleSetRow>("rule_sets", {
      siteId: { type: BIGINT, primaryKey: true },
      version: { type: INTEGER, primaryKey: true },
      rules: JSONB,
      createdBy: TEXT,
      createdAt: DATE,
    }),
    routes: define<RouteRow>(
      "routes",
      {
        id: serial,
        siteId: BIGINT,
        kind: TEXT,
        host: TEXT,
        match: TEXT,
        address: TEXT,
        aliases: ARRAY(TEXT),
        destination: TEXT,
        destinationKey: TEXT,
        status: INTEGER,
        query: TEXT,
        parameters: TEXT,
        notice: JSONB,
        title: TEXT,
        tags: ARRAY(TEXT),
        noindex: BOOLEAN,
        nofollow: BOOLEAN,
        counted: BOOLEAN,
        enabled: BOOLEAN,
        replacesPage: BOOLEAN,
        validFrom: DATE,
        validUntil: DATE,
        afterEnd: TEXT,
        endDestination: TEXT,
        inContent: TEXT,
        contentPages: ARRAY(BIGINT),
        countedFrom: DATE,
        clicksBefore: BIGINT,
        search: TEXT,
        version: INTEGER,
        deletedAt: DATE,
      },
      true,
    ),
    misses: define<MissRow>("misses", {
      id: serial,
      siteId: BIGINT,
      host: TEXT,
      key: TEXT,
      times: INTEGER,
      bots: INTEGER,
      firstSeen: DATE,
      lastSeen: DATE,
      referrers: ARRAY(TEXT),
      resolvedAt: DATE,
      ignoredAt: DATE,
    }),
  };
}

export type Models = ReturnType<typeof defineModels>;
