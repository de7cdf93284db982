import { DataTypes, Model, type ModelAttributes, type ModelStatic, type Sequelize } from "sequelize";
import type { Address } from "../../core/address/address.ts";
import type { Body } from "../../core/pages/body/body.ts";
import type { BodyHtml } from "../../core/pages/body/to-html.ts";
import type { Placement } from "../../core/pages/page.ts";
import type { Rule } from "../../core/rules/rule.ts";
import type { Role } from "../../core/people/person.ts";
import type {
  AfterEnd,
  InContent,
  Notice,
  QueryMode,
  RouteKind,
  RouteStatus,
} from "../../core/routes/route.ts";
import type { Disclosure } from "../../core/programs/partner.ts";
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
  country: string;
  version: number;
}

export interface HostRow {
  id: string;
  siteId: string;
  name: string;
  role: "primary" | "short" | "other";
}

export interface PersonRow extends Stamped {
  id: string;
  email: string;
  name: string;
  role: Role;
  passwordHash: string;
}

export interface SessionRow {
  tokenHash: string;
  personId: string;
  createdAt: Date;
  expiresAt: Date;
}

export interface TokenRow extends Stamped {
  id: string;
  name: string;
  tokenHash: string;
  role: Role;
  expiresAt: Date | null;
  lastUsedAt: Date | null;
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

const { BIGINT, BOOLEAN, DATE, INTEGER, JSONB, TEXT, ARRAY } = DataTypes;
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
        country: TEXT,
        version: INTEGER,
      },
      true,
    ),
    hosts: define<HostRow>("hosts", { id: serial, siteId: BIGINT, name: TEXT, role: TEXT }),
    people: define<PersonRow>(
      "people",
      { id: serial, email: TEXT, name: TEXT, role: TEXT, passwordHash: TEXT },
      true,
    ),
    sessions: define<SessionRow>("sessions", {
      tokenHash: { type: TEXT, primaryKey: true },
      personId: BIGINT,
      createdAt: DATE,
      expiresAt: DATE,
    }),
    tokens: define<TokenRow>(
      "tokens",
      { id: serial, name: TEXT, tokenHash: TEXT, role: TEXT, expiresAt: DATE, lastUsedAt: DATE },
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
