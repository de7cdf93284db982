/** What is told of the command for scripts. */
export const REWRITE_HELP = `maprope rewrite [FOLDER, FILE or PATTERN …]   applies a site's rules to HTML
maprope --version                            says which version this is

Without a folder or with “-” it reads a document from standard input and writes it to standard output. Folders are
searched for .html, .htm and .xhtml files (never in node_modules or .git); files that change are written in place.
A pattern names files: "public/**/*.html", in quotes.

  --rules FILE       rules as JSON: what GET …/rules/bundle answers, or a list of rules that name no program or network
  --host NAME        a host of our own; may be given several times (with --rules)
  --site KEY         a site of a running Map Rope, whose rules are asked through the API
  --url URL          where it runs (default $MAPROPE_URL or http://127.0.0.1:4600);
                     its token is read from $MAPROPE_API_TOKEN
  --exclude PATTERN  files or folders to leave out; may be given several times
  --page PATH        the page's path, for rules that name pages (of a folder: each file's own)
  --category NAME    the category, for rules that name categories
  --check            writes nothing; fails with status 1 when something would change
  --report FORMAT    text (default), json or none; on standard error when the document goes to standard output
  --config FILE      settings as JSON (default: maprope.config.json of this folder, where there is one):
                     rules, hosts, site, url, files, exclude, report as above, and
                     categories: {"/reviews/*": "Reviews"}, the category of each page by its path

Status: 0 done, or nothing to change; 1 with --check, something would change; 2 it could not be done.
`;

/** What is told of the commands of an installation, in front of it. */
export const OPERATOR_HELP = `maprope serve                           runs this installation until it is stopped (settings: environment, or .env)
maprope migrate                         brings the schema of the database up to date
maprope doctor                          says of configuration, disk, database, clock, schema, secret and hosts how they are
maprope person list                     the people of this installation, and what they may do
maprope person invite MAIL [--role R]   a link with which somebody comes in (owner unless said otherwise)
maprope person reset MAIL               a link with which somebody chooses a new password
maprope site list                       the sites of this installation, and their hosts
maprope site new KEY --host NAME        a new site (--name, --short NAME, --other NAME)
maprope token list | new NAME | end ID  the installation's API tokens (--role R, --site KEY, --days N)
maprope backup FILE                     keeps the database and waiting clicks in one file, while all goes on
maprope restore FILE                    makes an empty database and data folder what they were then
maprope edge nginx FOLDER --name NAME   writes nginx's configuration there and keeps it up to date, until it is stopped
                                        (--upstream URL, --listen VALUE, --include FILE, --log FILE, --pid FILE, --nginx PROGRAM, --once)
maprope edge list | forget NAME         the edges that are known, and how they are
maprope collect LOG --name NAME         brings an edge's clicks in, until it is stopped (--pid FILE, --once)
maprope secret rotate                   a new secret: seals with it what is sealed with the one before
`;
