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

-- 004-ledger
ALTER TABLE spool_progress ADD COLUMN closed_at timestamptz;
CREATE INDEX spool_progress_closed ON spool_progress (closed_at) WHERE closed_at IS NOT NULL;
ALTER TABLE sites ADD COLUMN disclosure jsonb NOT NULL DEFAULT '{"text": "", "place": false}';
CREATE TABLE ledger_sources (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE,
      kind text NOT NULL CHECK (kind IN ('page', 'block', 'navigation')), page_id bigint NOT NULL,
      edition text NOT NULL CHECK (edition IN ('both', 'draft', 'published')),
      live boolean NOT NULL, stamp text NOT NULL, made_of text NOT NULL, path text NOT NULL, title text NOT NULL, category text NOT NULL,
      words integer NOT NULL, disclosed boolean, findings text[] NOT NULL DEFAULT '{}');
CREATE UNIQUE INDEX ledger_sources_page ON ledger_sources (site_id, page_id, edition);
CREATE TABLE ledger_links (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL, source_id bigint NOT NULL,
      edition text NOT NULL, live boolean NOT NULL, source_kind text NOT NULL, place text NOT NULL, ordinal integer NOT NULL,
      words text NOT NULL, anchor text NOT NULL, href text NOT NULL, ends text NOT NULL, host text NOT NULL, kind text NOT NULL,
      reach text NOT NULL, category text NOT NULL, own_key text, destination_key text NOT NULL, route_id bigint, leads_to bigint, short_id bigint,
      stored_rel text, stored_target text, override text, rel text NOT NULL, target text, treatment text NOT NULL,
      rules text[] NOT NULL, programs text[] NOT NULL, networks text[] NOT NULL, sub_id text,
      text_findings text[] NOT NULL, rule_findings text[] NOT NULL, search text NOT NULL,
      -- One number for all that facets count by: hashing it is a fourth of hashing each of them.
      facet_key bigint GENERATED ALWAYS AS (
        hashtextextended(kind || ' ' || treatment || ' ' || reach || ' ' || coalesce(target, '') || ' ' || anchor || ' ' || host || ' ' || source_kind, 0)
        # hash_array_extended(rules, 1) # hash_array_extended(programs, 2) # hash_array_extended(text_findings, 3) # hash_array_extended(rule_findings, 4)) STORED);
CREATE FUNCTION forget_ledger_links() RETURNS trigger LANGUAGE plpgsql AS
      'BEGIN DELETE FROM ledger_links WHERE source_id IN (SELECT id FROM gone); RETURN NULL; END';
CREATE TRIGGER ledger_sources_gone AFTER DELETE ON ledger_sources REFERENCING OLD TABLE AS gone
      FOR EACH STATEMENT EXECUTE FUNCTION forget_ledger_links();
CREATE INDEX ledger_links_source ON ledger_links (source_id, ordinal);
CREATE INDEX ledger_links_place ON ledger_links (site_id, place, source_id, ordinal);
CREATE INDEX ledger_links_host ON ledger_links (site_id, host, id);
CREATE INDEX ledger_links_own ON ledger_links (site_id, own_key) WHERE own_key IS NOT NULL;
CREATE INDEX ledger_links_destination ON ledger_links (site_id, destination_key);
CREATE INDEX ledger_links_route ON ledger_links (route_id) WHERE route_id IS NOT NULL;
CREATE INDEX ledger_links_leads_to ON ledger_links (leads_to) WHERE leads_to IS NOT NULL;
CREATE TABLE ledger_states (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, seq bigint NOT NULL,
      rules_version integer NOT NULL, kept_at timestamptz NOT NULL DEFAULT now());
CREATE TABLE ledger_days (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, day date NOT NULL, treatment text NOT NULL, links integer NOT NULL,
      PRIMARY KEY (site_id, day, treatment));
CREATE TABLE ledger_views (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL, query text NOT NULL,
      made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), UNIQUE (site_id, name));
CREATE TABLE rule_schedules (
      site_id bigint PRIMARY KEY REFERENCES sites ON DELETE CASCADE, version integer NOT NULL, rules jsonb NOT NULL,
      at timestamptz NOT NULL, made_by text NOT NULL, held text);
CREATE TABLE link_batches (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, action jsonb NOT NULL, before jsonb NOT NULL,
      made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), undone_at timestamptz);

-- 005-programs
CREATE TABLE programs (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, terms jsonb NOT NULL,
      name text NOT NULL GENERATED ALWAYS AS (terms->>'name') STORED,
      network text NOT NULL GENERATED ALWAYS AS (terms->>'network') STORED,
      state text NOT NULL GENERATED ALWAYS AS (terms->>'state') STORED,
      state_dates jsonb NOT NULL DEFAULT '{}', credentials text, version integer NOT NULL DEFAULT 1,
      created_at timestamptz NOT NULL DEFAULT now(), updated_at timestamptz NOT NULL DEFAULT now(), deleted_at timestamptz);
CREATE UNIQUE INDEX programs_name ON programs (site_id, lower(name)) WHERE deleted_at IS NULL;
CREATE TABLE networks (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL,
      hosts text[] NOT NULL DEFAULT '{}', catalogue text NOT NULL DEFAULT '', report text NOT NULL DEFAULT '',
      columns jsonb, UNIQUE (site_id, name));
CREATE TABLE program_routes (
      route_id bigint PRIMARY KEY REFERENCES routes ON DELETE CASCADE, site_id bigint NOT NULL, program_id bigint NOT NULL REFERENCES programs ON DELETE CASCADE,
      tracking text NOT NULL, sub_id text);
CREATE INDEX program_routes_program ON program_routes (program_id);
CREATE TABLE issued_links (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, program_id bigint NOT NULL REFERENCES programs ON DELETE CASCADE,
      sub_id text NOT NULL, page_id bigint, destination text NOT NULL, address text NOT NULL,
      made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now(), UNIQUE (site_id, address));
CREATE INDEX issued_links_sub_id ON issued_links (program_id, sub_id);
CREATE TABLE creatives (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, program_id bigint NOT NULL REFERENCES programs ON DELETE CASCADE,
      name text NOT NULL, html text NOT NULL, read jsonb NOT NULL, version integer NOT NULL DEFAULT 1, deleted_at timestamptz,
      made_at timestamptz NOT NULL DEFAULT now());
CREATE INDEX creatives_program ON creatives (program_id) WHERE deleted_at IS NULL;
CREATE TABLE conversions (
      site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, network text NOT NULL, reference text COLLATE "C" NOT NULL,
      at timestamptz NOT NULL, kind text NOT NULL, state text NOT NULL, currency text NOT NULL, commission bigint NOT NULL, amount bigint,
      sub_id text COLLATE "C" NOT NULL, program_word text NOT NULL, program_id bigint, page_id bigint,
      PRIMARY KEY (site_id, network, reference));
CREATE INDEX conversions_at ON conversions (site_id, at);
CREATE INDEX conversions_unmatched ON conversions (site_id, at) WHERE program_id IS NULL;
CREATE TABLE report_imports (
      id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, network text NOT NULL, rows integer NOT NULL,
      created integer NOT NULL, changed integer NOT NULL, made_by text NOT NULL, made_at timestamptz NOT NULL DEFAULT now());

CREATE TABLE migrations (name character varying(255) PRIMARY KEY);
INSERT INTO migrations VALUES ('001-first-slice'), ('002-writing'), ('003-routes'), ('004-ledger'), ('005-programs');
