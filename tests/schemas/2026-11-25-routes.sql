-- The schema as it was made on this day: never edited, it is what stands in somebody's database.

-- 001-first-slice
CREATE TABLE sites (
      id bigserial PRIMARY KEY, key text NOT NULL UNIQUE, name text NOT NULL, tagline text NOT NULL DEFAULT '',
      short_prefix text NOT NULL DEFAULT '/to/', version integer NOT NULL DEFAULT 1, created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
CREATE TABLE hosts (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      name text NOT NULL UNIQUE, role text NOT NULL CHECK (role IN ('primary', 'short', 'other')));
CREATE TABLE people (
      id bigserial PRIMARY KEY, email text NOT NULL UNIQUE, name text NOT NULL,
      role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')), password_hash text NOT NULL, created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
CREATE TABLE sessions (
      token_hash text PRIMARY KEY, person_id bigint NOT NULL REFERENCES people ON DELETE CASCADE,
      created_at timestamptz NOT NULL DEFAULT now(), expires_at timestamptz NOT NULL);
CREATE TABLE tokens (
      id bigserial PRIMARY KEY, name text NOT NULL, token_hash text NOT NULL UNIQUE,
      role text NOT NULL CHECK (role IN ('owner', 'editor', 'reader')),
      expires_at timestamptz, last_used_at timestamptz, created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
CREATE TABLE sign_in_failures (
      who text NOT NULL, at timestamptz NOT NULL DEFAULT now());
CREATE INDEX sign_in_failures_who ON sign_in_failures (who, at);
CREATE TABLE pages (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      path text NOT NULL, key text NOT NULL, title text NOT NULL, description text NOT NULL DEFAULT '',
      category text NOT NULL DEFAULT '', in_navigation boolean NOT NULL DEFAULT false,
      body jsonb NOT NULL, html text NOT NULL, links jsonb NOT NULL DEFAULT '[]', link_keys text[] NOT NULL DEFAULT '{}',
      published jsonb, published_key text, published_version integer, published_at timestamptz,
      version integer NOT NULL DEFAULT 1, updated_by text NOT NULL DEFAULT '', deleted_at timestamptz, created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
CREATE UNIQUE INDEX pages_key ON pages (site_id, key) WHERE deleted_at IS NULL;
CREATE UNIQUE INDEX pages_published_key ON pages (site_id, published_key)
      WHERE deleted_at IS NULL AND published_key IS NOT NULL;
CREATE INDEX pages_link_keys ON pages USING gin (link_keys);
CREATE TABLE revisions (
      id bigserial PRIMARY KEY, page_id bigint NOT NULL REFERENCES pages ON DELETE CASCADE,
      version integer NOT NULL, snapshot jsonb NOT NULL, created_by text NOT NULL, created_at timestamptz NOT NULL DEFAULT now(),
      UNIQUE (page_id, version));
CREATE TABLE rule_sets (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, version integer NOT NULL, rules jsonb NOT NULL,
      created_by text NOT NULL, created_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (site_id, version));
CREATE TABLE routes (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      kind text NOT NULL CHECK (kind IN ('short', 'redirect', 'gone')), host text, address text NOT NULL,
      aliases text[] NOT NULL DEFAULT '{}', destination text, destination_key text, status integer NOT NULL,
      query text NOT NULL DEFAULT 'drop', title text NOT NULL DEFAULT '', tags text[] NOT NULL DEFAULT '{}',
      noindex boolean NOT NULL DEFAULT false, nofollow boolean NOT NULL DEFAULT false,
      counted boolean NOT NULL DEFAULT true, enabled boolean NOT NULL DEFAULT true,
      replaces_page boolean NOT NULL DEFAULT false, valid_from timestamptz, valid_until timestamptz,
      version integer NOT NULL DEFAULT 1, deleted_at timestamptz, created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
CREATE INDEX routes_site ON routes (site_id, id) WHERE deleted_at IS NULL;
CREATE INDEX routes_destination ON routes (site_id, destination_key) WHERE deleted_at IS NULL;
CREATE TABLE route_addresses (
      site_id bigint NOT NULL, host text NOT NULL, key text NOT NULL,
      route_id bigint NOT NULL REFERENCES routes ON DELETE CASCADE, PRIMARY KEY (site_id, host, key));
CREATE INDEX route_addresses_route ON route_addresses (route_id);
CREATE TABLE clicks (
      at timestamptz NOT NULL, route_id bigint NOT NULL, class text NOT NULL, device text NOT NULL,
      visitor text NOT NULL, referrer text NOT NULL, page text NOT NULL);
CREATE INDEX clicks_route_at ON clicks (route_id, at);
CREATE TABLE click_days (
      route_id bigint NOT NULL, day date NOT NULL, class text NOT NULL, device text NOT NULL, referrer text NOT NULL,
      clicks bigint NOT NULL, PRIMARY KEY (day, route_id, class, device, referrer));
CREATE TABLE click_visitors (
      route_id bigint NOT NULL, day date NOT NULL, visitor text NOT NULL, PRIMARY KEY (day, route_id, visitor));
CREATE TABLE route_clicks (
      route_id bigint PRIMARY KEY, clicks bigint NOT NULL, last_at timestamptz NOT NULL);
CREATE TABLE misses (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, host text NOT NULL, key text NOT NULL,
      times integer NOT NULL, bots integer NOT NULL, first_seen timestamptz NOT NULL, last_seen timestamptz NOT NULL,
      referrers text[] NOT NULL DEFAULT '{}', resolved_at timestamptz, UNIQUE (site_id, host, key));
CREATE TABLE spool_progress (
      segment text PRIMARY KEY, copied_bytes bigint NOT NULL, updated_at timestamptz NOT NULL DEFAULT now());
CREATE TABLE visitor_days (day date PRIMARY KEY, salt text NOT NULL);
CREATE TABLE changes (
      seq bigserial PRIMARY KEY, site_id bigint NOT NULL, kind text NOT NULL, object_id bigint,
      at timestamptz NOT NULL DEFAULT now());
CREATE TABLE audit (
      id bigserial PRIMARY KEY, at timestamptz NOT NULL DEFAULT now(), actor text NOT NULL, site_id bigint,
      action text NOT NULL, object text NOT NULL, detail jsonb NOT NULL DEFAULT '{}');

-- 002-writing
ALTER TABLE pages ADD COLUMN kind text NOT NULL DEFAULT 'page' CHECK (kind IN ('page', 'block')),
      ADD COLUMN placement jsonb, ADD COLUMN bound jsonb NOT NULL DEFAULT '{}';
CREATE INDEX pages_kind ON pages (site_id, kind) WHERE deleted_at IS NULL;
ALTER TABLE revisions ADD COLUMN kind text NOT NULL DEFAULT 'published' CHECK (kind IN ('published', 'aside'));
ALTER TABLE revisions DROP CONSTRAINT revisions_page_id_version_key;
CREATE UNIQUE INDEX revisions_published ON revisions (page_id, version) WHERE kind = 'published';
CREATE INDEX revisions_page ON revisions (page_id, id);
CREATE TABLE files (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      path text NOT NULL, name text NOT NULL, media_type text NOT NULL, bytes integer NOT NULL,
      width integer, height integer, digest text NOT NULL, alt text NOT NULL DEFAULT '',
      created_by text NOT NULL, deleted_at timestamptz, created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now());
CREATE UNIQUE INDEX files_path ON files (site_id, path) WHERE deleted_at IS NULL;
CREATE INDEX files_digest ON files (site_id, digest);
CREATE TABLE file_contents (file_id bigint PRIMARY KEY REFERENCES files ON DELETE CASCADE, content bytea NOT NULL);
CREATE TABLE navigations (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, version integer NOT NULL,
      items jsonb NOT NULL, updated_by text NOT NULL, updated_at timestamptz NOT NULL DEFAULT now());
CREATE TABLE site_variables (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL, value text NOT NULL,
      PRIMARY KEY (site_id, name));
ALTER TABLE sites ADD COLUMN paid_limit integer NOT NULL DEFAULT 3, ADD COLUMN paid_limit_long integer NOT NULL DEFAULT 4,
      ADD COLUMN long_words integer NOT NULL DEFAULT 1500;
CREATE UNLOGGED TABLE page_visits (
      page_id bigint NOT NULL REFERENCES pages ON DELETE CASCADE, tab text NOT NULL, person text NOT NULL,
      seen_at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (page_id, tab));

-- 003-routes
ALTER TABLE routes
      ADD COLUMN match text NOT NULL DEFAULT 'exact' CHECK (match IN ('exact', 'prefix', 'wildcard', 'pattern')),
      ADD COLUMN parameters text NOT NULL DEFAULT '', ADD COLUMN notice jsonb,
      ADD COLUMN after_end text NOT NULL DEFAULT 'nothing' CHECK (after_end IN ('nothing', 'gone', 'destination')),
      ADD COLUMN end_destination text,
      ADD COLUMN in_content text NOT NULL DEFAULT 'nowhere' CHECK (in_content IN ('nowhere', 'everywhere', 'pages')),
      ADD COLUMN content_pages bigint[] NOT NULL DEFAULT '{}',
      ADD COLUMN counted_from timestamptz, ADD COLUMN clicks_before bigint NOT NULL DEFAULT 0,
      ADD COLUMN search text NOT NULL DEFAULT '';
UPDATE routes SET search = lower(concat_ws(' ', address, array_to_string(aliases, ' '), title, destination));
CREATE INDEX routes_patterns ON routes (site_id) WHERE match <> 'exact' AND deleted_at IS NULL;
CREATE INDEX routes_in_content ON routes (site_id) WHERE in_content <> 'nowhere' AND deleted_at IS NULL;
ALTER TABLE sites ADD COLUMN misses jsonb NOT NULL DEFAULT '{"answer": "help"}',
      ADD COLUMN click_months integer NOT NULL DEFAULT 24;
CREATE TABLE route_health (
      route_id bigint PRIMARY KEY REFERENCES routes ON DELETE CASCADE, destination text NOT NULL,
      verdict text NOT NULL, status integer, note text NOT NULL DEFAULT '', checked_at timestamptz NOT NULL);
CREATE INDEX route_health_destination ON route_health (destination);
CREATE INDEX route_addresses_folded ON route_addresses (site_id, lower(key));
CREATE TABLE route_batches (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, action jsonb NOT NULL,
      before jsonb NOT NULL, made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), undone_at timestamptz);
CREATE INDEX audit_object ON audit (site_id, object, id);
ALTER TABLE clicks RENAME TO clicks_whole;
CREATE TABLE clicks (
      at timestamptz NOT NULL, route_id bigint NOT NULL, class text NOT NULL, device text NOT NULL,
      visitor text NOT NULL, referrer text NOT NULL, page text NOT NULL) PARTITION BY RANGE (at);
CREATE INDEX clicks_at ON clicks USING brin (at) WITH (pages_per_range = 32, autosummarize = on);
DO $$ DECLARE month timestamptz; BEGIN
      FOR month IN SELECT DISTINCT date_trunc('month', at AT TIME ZONE 'UTC') AT TIME ZONE 'UTC' FROM clicks_whole LOOP
        EXECUTE format('CREATE TABLE %I PARTITION OF clicks FOR VALUES FROM (%L) TO (%L)',
          'clicks_' || to_char(month AT TIME ZONE 'UTC', 'YYYY_MM'), month, (month AT TIME ZONE 'UTC' + interval '1 month') AT TIME ZONE 'UTC');
      END LOOP; END $$;
INSERT INTO clicks SELECT * FROM clicks_whole;
DROP TABLE clicks_whole, click_days, click_visitors;
CREATE TABLE click_counts (
      site_id bigint NOT NULL, route_id bigint NOT NULL, facet text NOT NULL, day date NOT NULL, key text NOT NULL,
      class text NOT NULL, clicks bigint NOT NULL, visitors bigint NOT NULL DEFAULT 0,
      PRIMARY KEY (site_id, route_id, facet, day, key, class));
CREATE INDEX click_counts_routes ON click_counts (site_id, day) WHERE facet = 'all' AND route_id > 0;
INSERT INTO click_counts (site_id, route_id, facet, day, key, class, clicks)
      SELECT r.site_id, s.route, f.facet, (c.at AT TIME ZONE 'UTC')::date, f.key, c.class, count(*)
      FROM clicks c JOIN routes r ON r.id = c.route_id
      CROSS JOIN LATERAL (VALUES (c.route_id), (0)) AS s (route)
      CROSS JOIN LATERAL (VALUES ('all', ''), ('device', c.device), ('referrer', c.referrer), ('page', c.page),
        ('hour', to_char(c.at AT TIME ZONE 'UTC', 'HH24'))) AS f (facet, key)
      GROUP BY 1, 2, 3, 4, 5, 6;
CREATE TABLE unsettled_days (id bigserial PRIMARY KEY, day date NOT NULL);
INSERT INTO unsettled_days (day) SELECT DISTINCT day FROM click_counts;
ALTER TABLE misses ADD COLUMN probe boolean NOT NULL DEFAULT false, ADD COLUMN ignored_at timestamptz;
CREATE INDEX misses_open ON misses (site_id, last_seen) WHERE resolved_at IS NULL;

CREATE TABLE migrations (name character varying(255) PRIMARY KEY);
INSERT INTO migrations VALUES ('001-first-slice'), ('002-writing'), ('003-routes');
