import type { Migration } from "../migration.ts";

/** Routes in full, clicks by month with their roll-ups, what misses get, how destinations answer, changes of many at once. */
export const routesInFull: Migration = {
  name: "003-routes",
  statements: [
    `ALTER TABLE routes
      ADD COLUMN match text NOT NULL DEFAULT 'exact' CHECK (match IN ('exact', 'prefix', 'wildcard', 'pattern')),
      ADD COLUMN parameters text NOT NULL DEFAULT '', ADD COLUMN notice jsonb,
      ADD COLUMN after_end text NOT NULL DEFAULT 'nothing' CHECK (after_end IN ('nothing', 'gone', 'destination')),
      ADD COLUMN end_destination text,
      ADD COLUMN in_content text NOT NULL DEFAULT 'nowhere' CHECK (in_content IN ('nowhere', 'everywhere', 'pages')),
      ADD COLUMN content_pages bigint[] NOT NULL DEFAULT '{}',
      ADD COLUMN counted_from timestamptz, ADD COLUMN clicks_before bigint NOT NULL DEFAULT 0,
      ADD COLUMN search text NOT NULL DEFAULT ''`,
    `UPDATE routes SET search = lower(concat_ws(' ', address, array_to_string(aliases, ' '), title, destination))`,
    `CREATE INDEX routes_patterns ON routes (site_id) WHERE match <> 'exact' AND deleted_at IS NULL`,
    `CREATE INDEX routes_in_content ON routes (site_id) WHERE in_content <> 'nowhere' AND deleted_at IS NULL`,
    `ALTER TABLE sites ADD COLUMN misses jsonb NOT NULL DEFAULT '{"answer": "help"}',
      ADD COLUMN click_months integer NOT NULL DEFAULT 24`,

    // How destinations answered when they were last looked at.
    `CREATE TABLE route_health (
      route_id bigint PRIMARY KEY REFERENCES routes ON DELETE CASCADE, destination text NOT NULL,
      verdict text NOT NULL, status integer, note text NOT NULL DEFAULT '', checked_at timestamptz NOT NULL)`,
    `CREATE INDEX route_health_destination ON route_health (destination)`,
    `CREATE INDEX route_addresses_folded ON route_addresses (site_id, lower(key))`,
    // What many routes were before they were changed together, for its undo.
    `CREATE TABLE route_batches (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, action jsonb NOT NULL,
      before jsonb NOT NULL, made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), undone_at timestamptz)`,
    `CREATE INDEX audit_object ON audit (site_id, object, id)`,

    `ALTER TABLE clicks RENAME TO clicks_whole`,
    `CREATE TABLE clicks (
      at timestamptz NOT NULL, route_id bigint NOT NULL, class text NOT NULL, device text NOT NULL,
      visitor text NOT NULL, referrer text NOT NULL, page text NOT NULL) PARTITION BY RANGE (at)`,
    // Clicks arrive in the order of time: a block range index costs next to nothing to keep and finds a day.
    `CREATE INDEX clicks_at ON clicks USING brin (at) WITH (pages_per_range = 32, autosummarize = on)`,
    `DO $$ DECLARE month timestamptz; BEGIN
      FOR month IN SELECT DISTINCT date_trunc('month', at AT TIME ZONE 'UTC') AT TIME ZONE 'UTC' FROM clicks_whole LOOP
        EXECUTE format('CREATE TABLE %I PARTITION OF clicks FOR VALUES FROM (%L) TO (%L)',
          'clicks_' || to_char(month AT TIME ZONE 'UTC', 'YYYY_MM'), month, (month AT TIME ZONE 'UTC' + interval '1 month') AT TIME ZONE 'UTC');
      END LOOP; END $$`,
    `INSERT INTO clicks SELECT * FROM clicks_whole`,
    `DROP TABLE clicks_whole, click_days, click_visitors`,

    // Counts by day, kept when the clicks themselves are dropped. Route 0 is the whole site. Facets: all, device,
    // referrer, page, hour. Visitors are counted a day at a time, by settling (see click-settling.ts).
    `CREATE TABLE click_counts (
      site_id bigint NOT NULL, route_id bigint NOT NULL, facet text NOT NULL, day date NOT NULL, key text NOT NULL,
      class text NOT NULL, clicks bigint NOT NULL, visitors bigint NOT NULL DEFAULT 0,
      PRIMARY KEY (site_id, route_id, facet, day, key, class))`,
    `CREATE INDEX click_counts_routes ON click_counts (site_id, day) WHERE facet = 'all' AND route_id > 0`,
    `INSERT INTO click_counts (site_id, route_id, facet, day, key, class, clicks)
      SELECT r.site_id, s.route, f.facet, (c.at AT TIME ZONE 'UTC')::date, f.key, c.class, count(*)
      FROM clicks c JOIN routes r ON r.id = c.route_id
      CROSS JOIN LATERAL (VALUES (c.route_id), (0)) AS s (route)
      CROSS JOIN LATERAL (VALUES ('all', ''), ('device', c.device), ('referrer', c.referrer), ('page', c.page),
        ('hour', to_char(c.at AT TIME ZONE 'UTC', 'HH24'))) AS f (facet, key)
      GROUP BY 1, 2, 3, 4, 5, 6`,
    `CREATE TABLE unsettled_days (id bigserial PRIMARY KEY, day date NOT NULL)`,
    `INSERT INTO unsettled_days (day) SELECT DISTINCT day FROM click_counts`,

    `ALTER TABLE misses ADD COLUMN probe boolean NOT NULL DEFAULT false, ADD COLUMN ignored_at timestamptz`,
    `CREATE INDEX misses_open ON misses (site_id, last_seen) WHERE resolved_at IS NULL`,
  ],
};
