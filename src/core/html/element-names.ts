/** What the names of elements mean to whoever reads tags without building a tree (HTML standard, sections 13.1.2, 13.2.4 and 13.2.6). */

/** What the hash of a name begins with. */
export const NO_NAME = 5381;

/** No end tag belongs to it. */
export const VOID = 1;
/** “Special” (section 13.2.4.2): an end tag of an ordinary element does not reach through it. */
export const SPECIAL = 2;
/** Ends the scope in which an end tag looks for its element. */
export const SCOPE = 4;
/** In the list of active formatting elements: its end tag reaches through what is special. */
export const FORMATTING = 8;
/** Its start tag ends foreign content (section 13.2.6.5). */
export const BREAKOUT = 16;
/** Its content is text, with the first end tag of its name at its end. */
export const RAW = 32;
/** Its content is a script, with states of its own. */
export const SCRIPT = 64;
/** All that follows is text. */
export const PLAINTEXT = 128;
/** Begins foreign content. */
export const FOREIGN_ROOT = 256;
/** Part of a table: its end tag looks through all but tables and templates. */
export const TABLE_PART = 512;
export const HEADING = 1024;
/** What HTML begins in anew inside SVG. */
export const SVG_POINT = 2048;
/** What text and HTML begin in anew inside MathML. */
export const MATH_POINT = 4096;
/** Neither opened nor closed by what a reader of tags sees: there is one of it. */
export const SINGLE = 8192;
/** Closes its like that stands open right before it. */
export const CLOSES_LIKE = 16384;
/** Ends an open `select`; its start tag is read again behind it. */
export const ENDS_SELECT = 32768;

const groups: readonly (readonly [flag: number, names: string])[] = [
  [
    VOID,
    "area base basefont bgsound br col embed frame hr img image input keygen link meta param source track wbr",
  ],
  [
    SPECIAL,
    "address applet area article aside base basefont bgsound blockquote body br button caption center col colgroup dd details dir div dl dt embed fieldset figcaption figure footer form frame frameset h1 h2 h3 h4 h5 h6 head header hgroup hr html iframe img input keygen li link listing main marquee menu meta nav noembed noframes noscript object ol p param plaintext pre script search section select source style summary table tbody td template textarea tfoot th thead title tr track ul wbr xmp",
  ],
  [SCOPE, "applet caption html table td th marquee object template"],
  [FORMATTING, "a b big code em font i nobr s small strike strong tt u"],
  [
    BREAKOUT,
    "b big blockquote body br center code dd div dl dt em embed h1 h2 h3 h4 h5 h6 head hr i img li listing menu meta nobr ol p pre ruby s small span strong strike sub sup table tt u ul var",
  ],
  [RAW, "title textarea style xmp iframe noembed noframes"],
  [SCRIPT, "script"],
  [PLAINTEXT, "plaintext"],
  [FOREIGN_ROOT, "svg math"],
  [TABLE_PART, "table caption colgroup tbody td tfoot th thead tr"],
  [HEADING, "h1 h2 h3 h4 h5 h6"],
  [SVG_POINT, "foreignobject desc title"],
  [MATH_POINT, "mi mo mn ms mtext"],
  [SINGLE, "html head body frameset"],
  [CLOSES_LIKE, "p li dd dt option optgroup tr td th tbody rb rt rtc rp"],
  [ENDS_SELECT, "select input keygen textarea"],
  [0, "span font annotation-xml mglyph malignmark"],
];

const NAMES: string[] = [];
const FLAGS: number[] = [];
for (const [flag, names] of groups)
  for (const name of names.split(" ")) {
    const at = NAMES.indexOf(name);
    if (at === -1) {
      NAMES.push(name);
      FLAGS.push(flag);
    } else FLAGS[at]! |= flag;
  }

// Open addressing over the hashes of the known names.
const SIZE = 1024;
const table = new Int16Array(SIZE).fill(-1);
const hashes = new Int32Array(NAMES.length);
for (const [at, name] of NAMES.entries()) {
  hashes[at] = hashOfName(name);
  let slot = hashes[at]! & (SIZE - 1);
  while (table[slot] !== -1) slot = (slot + 1) & (SIZE - 1);
  table[slot] = at;
}

/** The hash of a name with one more sign, letter case aside (ASCII). */
export function hashed(hash: number, sign: number): number {
  return (Math.imul(hash, 33) ^ (sign >= 65 && sign <= 90 ? sign | 32 : sign)) | 0;
}

/** The hash of a whole name. */
export function hashOfName(name: string): number {
  let hash = NO_NAME;
  for (let at = 0; at < name.length; at += 1) hash = hashed(hash, name.charCodeAt(at));
  return hash;
}

/** The known name of a hash, as an index; -1 for a name that means nothing here. */
export function knownName(hash: number): number {
  for (let slot = hash & (SIZE - 1); ; slot = (slot + 1) & (SIZE - 1)) {
    const at = table[slot]!;
    if (at === -1 || hashes[at] === hash) return at;
  }
}

/** The known name at an index. */
export function nameOf(known: number): string {
  return NAMES[known]!;
}

/** What a known name means; 0 for -1. */
export function flagsOf(known: number): number {
  return known === -1 ? 0 : FLAGS[known]!;
}
