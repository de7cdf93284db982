import type { Migration } from "../migration.ts";

const STAMPS = `created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now()`;

/** Sites, people, pages, rules, routes, clicks and misses, as the first slice needs them. */
export const firstSlice: Migration = {
  name: "001-first-slice",
  statements: [
    `CREATE TABLE sites (
      id bigserial PRIMARY KEY, key text NOT NULL UNIQUE, name text NOT NULL, tagline text NOT NULL DEFAULT '',
      short_prefix text NOT NULL DEFAULT '/to/', version integer NOT NULL DEFAULT 1, ${STAMPS})`,
    `CREATE TABLE hosts (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      name text NOT NULL UNIQUE, role text NOT NULL CHECK (role IN ('primary', 'short', 'other')))`,

    `CREATE TABLE people (
      id bigserial PRIMARY KEY, email text NOT NULL UNIQUE, name text NOT NULL,
      role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')), password_hash text NOT NULL, ${STAMPS})`,
    `CREATE TABLE sessions (
      token_hash text PRIMARY KEY, person_id bigint NOT NULL REFERENCES people ON DELETE CASCADE,
      created_at timestamptz NOT NULL DEFAULT now(), expires_at timestamptz NOT NULL)`,
    `CREATE TABLE tokens (
      id bigserial PRIMARY KEY, name text NOT NULL, token_hash text NOT NULL UNIQUE,
      role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')),
      expires_at timestamptz, last_used_at timestamptz, ${STAMPS})`,
    `CREATE TABLE sign_in_failures (
      who text NOT NULL, at timestamptz NOT NULL DEFAULT now())`,
    `CREATE INDEX sign_in_failures_who ON sign_in_failures (who, at)`,

    `CREATE TABLE pages (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      path text NOT NULL, key text NOT NULL, title text NOT NULL, description text NOT NULL DEFAULT '',
      category text NOT NULL DEFAULT '', in_navigation boolean NOT NULL DEFAULT false,
      body jsonb NOT NULL, html text NOT NULL, links jsonb NOT NULL DEFAULT '[]', link_keys text[] NOT NULL DEFAULT '{}',
      published jsonb, published_key text, published_version integer, published_at timestamptz,
      version integer NOT NULL DEFAULT 1, updated_by text NOT NULL DEFAULT '', deleted_at timestamptz, ${STAMPS})`,
    `CREATE UNIQUE INDEX pages_key ON pages (site_id, key) WHERE deleted_at IS NULL`,
    `CREATE UNIQUE INDEX pages_published_key ON pages (site_id, published_key)
      WHERE deleted_at IS NULL AND published_key IS NOT NULL`,
    `CREATE INDEX pages_link_keys ON pages USING gin (link_keys)`,
    `CREATE TABLE revisions (
      id bigserial PRIMARY KEY, page_id bigint NOT NULL REFERENCES pages ON DELETE CASCADE,
      version integer NOT NULL, snapshot jsonb NOT NULL, created_by text NOT NULL, created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (page_id, version))`,

    `CREATE TABLE rule_sets (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, version integer NOT NULL, rules jsonb NOT NULL,
      created_by text NOT NULL, created_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (site_id, version))`,

    `CREATE TABLE routes (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      kind text NOT NULL CHECK (kind IN ('short', 'redirect', 'gone')), host text, address text NOT NULL,
      aliases text[] NOT NULL DEFAULT '{}', destination text, destination_key text, status integer NOT NULL,
      query text NOT NULL DEFAULT 'drop', title text NOT NULL DEFAULT '', tags text[] NOT NULL DEFAULT '{}',
      noindex boolean NOT NULL DEFAULT false, nofollow boolean NOT NULL DEFAULT false,
      counted boolean NOT NULL DEFAULT true, enabled boolean NOT NULL DEFAULT true,
      replaces_page boolean NOT NULL DEFAULT false, valid_from timestamptz, valid_until timestamptz,
      version integer NOT NULL DEFAULT 1, deleted_at timestamptz, ${STAMPS})`,
    `CREATE INDEX routes_site ON routes (site_id, id) WHERE deleted_at IS NULL`,
    `CREATE INDEX routes_destination ON routes (site_id, destination_key) WHERE deleted_at IS NULL`,
    // Host '*' is "every host of the site". The key of a short link is stored folded to lower case.
    `CREATE TABLE route_addresses (
      site_id bigint NOT NULL, host text NOT NULL, key text NOT NULL,
      route_id bigint NOT NULL REFERENCES routes ON DELETE CASCADE, PRIMARY KEY (site_id, host, key))`,
    `CREATE INDEX route_addresses_route ON route_addresses (route_id)`,

    `CREATE TABLE clicks (
      at timestamptz NOT NULL, route_id bigint NOT NULL, class text NOT NULL, device text NOT NULL,
      visitor text NOT NULL, referrer text NOT NULL, page text NOT NULL)`,
    `CREATE INDEX clicks_route_at ON clicks (route_id, at)`,
    `CREATE TABLE click_days (
      route_id bigint NOT NULL, day date NOT NULL, class text NOT NULL, device text NOT NULL, referrer text NOT NULL,
      clicks bigint NOT NULL, PRIMARY KEY (day, route_id, class, device, referrer))`,
    `CREATE TABLE click_visitors (
      route_id bigint NOT NULL, day date NOT NULL, visitor text NOT NULL, PRIMARY KEY (day, route_id, visitor))`,
    `CREATE TABLE route_clicks (
      route_id bigint PRIMARY KEY, clicks bigint NOT NULL, last_at timestamptz NOT NULL)`,
    `CREATE TABLE misses (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, host text NOT NULL, key text NOT NULL,
      times integer NOT NULL, bots integer NOT NULL, first_seen timestamptz NOT NULL, last_seen timestamptz NOT NULL,
      referrers text[] NOT NULL DEFAULT '{}', resolved_at timestamptz, UNIQUE (site_id, host, key))`,
    // How far each spool segment has been copied: written in the same transaction as its clicks.
    `CREATE TABLE spool_progress (
      segment text PRIMARY KEY, copied_bytes bigint NOT NULL, updated_at timestamptz NOT NULL DEFAULT now())`,
    `CREATE TABLE visitor_days (day date PRIMARY KEY, salt text NOT NULL)`,

    `CREATE TABLE changes (
      seq bigserial PRIMARY KEY, site_id bigint NOT NULL, kind text NOT NULL, object_id bigint,
      at timestamptz NOT NULL DEFAULT now())`,
    `CREATE TABLE audit (
      id bigserial PRIMARY KEY, at timestamptz NOT NULL DEFAULT now(), actor text NOT NULL, site_id bigint,
      action text NOT NULL, object text NOT NULL, detail jsonb NOT NULL DEFAULT '{}')`,
  ],
};
