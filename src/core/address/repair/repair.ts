import {
  MAX_ADDRESS_LENGTH,
  type Address,
  type AddressForm,
  type Refusal,
  type RefusalCode,
  type Repair,
  type Repaired,
} from "../address.ts";
import { isLocalPhone, isPhone, mailAddress, mailIn, phoneAddress } from "./contact.ts";
import { rootless } from "../host.ts";
import { outOfLines, outOfProse } from "./prose.ts";
import { otherReadings, severalAddresses } from "./readings.ts";
import { repairScheme, startsWithHost } from "./scheme.ts";
import { unwrap } from "./unwrap.ts";
import { warningsFor, type AddressSurroundings } from "./warn.ts";

// eslint-disable-next-line no-control-regex -- control characters are what it looks for
const CONTROL = /[\u0000-\u001F\u007F-\u009F\u2028\u2029]/;
const SCHEME = /^([a-z][a-z\d+.-]*):/i;
const RELATIVE_PATH = /^(?:\.{1,2}\/|[\p{L}\p{N}_~-]+(?:\/|\.html?$|\.pdf$))/iu;

/** What is pasted may hold more than its address: a whole link in HTML. Longer texts are no address. */
const MAX_PASTED = 20_000;

/**
 * Turns what a person pasted into a destination and says what it did.
 * Repairs are told one by one; an address that cannot be made right is refused with a reason. Query
 * parameters are never reordered or dropped: a program's parameters are its payment.
 * Total: every string has an answer.
 */
export function repairAddress(pasted: string, surroundings: AddressSurroundings = {}): Repaired {
  const repaired = repairedOf(pasted, surroundings);
  return repaired.ok && !surroundings.isExact
    ? { ...repaired, others: otherReadings(pasted, repaired.address) }
    : repaired;
}

function repairedOf(pasted: string, surroundings: AddressSurroundings): Repaired {
  if (pasted.length > MAX_PASTED) {
    return refuse(
      "too-long",
      `There are ${pasted.length} characters; an address has at most ${MAX_ADDRESS_LENGTH}.`,
      [],
    );
  }
  const several = surroundings.isExact ? [] : severalAddresses(pasted);
  if (several.length > 0)
    return {
      ...refuse(
        "not-an-address",
        `There are ${several.length} addresses here; a link leads to one. Take one of them.`,
        [],
      ),
      others: several,
    } as Repaired;
  const { text, repairs } = surroundings.isExact ? unwrap(pasted) : bare(pasted);
  if (text === "")
    return refuse(
      "empty",
      "There is no address here. Paste one, such as https://shop.example/lamp.",
      repairs,
    );
  if (CONTROL.test(text)) {
    return refuse(
      "control-characters",
      "There is a line break or control character inside the address. Paste it as one line.",
      repairs,
    );
  }
  if (text.startsWith("#")) return accept(encodeSpaces(text, repairs), "fragment", repairs, surroundings);
  if (text.startsWith("?") || /^\/(?![/\\])/.test(text)) {
    return accept(encodeSpaces(text, repairs), "path", repairs, surroundings);
  }
  const mail = mailIn(text);
  if (mail !== undefined) {
    repairs.push({ code: "missing-scheme", message: "Added mailto: to the mail address." });
    return acceptMail(mail, repairs, surroundings);
  }
  if (isPhone(text)) return acceptPhone(text, repairs, surroundings);
  const atHome = isLocalPhone(text) ? surroundings.homePhone?.(text) : undefined;
  if (atHome !== undefined) {
    repairs.push({ code: "encoded", message: "Wrote the number with the country of this site in front." });
    return accept(atHome, "phone", repairs, surroundings);
  }
  if (isLocalPhone(text))
    return refuse(
      "not-an-address",
      "This reads as a phone number without its country. Write it as it is dialled from abroad, such as +44 20 7946 0000.",
      repairs,
    );
  if (FILE_NAME.test(text)) return acceptRooted(text, repairs, surroundings);

  const repaired = repairScheme(text);
  repairs.push(...repaired.repairs);
  const scheme = SCHEME.exec(repaired.text)?.[1]?.toLowerCase();
  if (scheme === "http" || scheme === "https") return acceptWeb(repaired.text, repairs, surroundings);
  if (scheme === "mailto") return acceptMail(text, repairs, surroundings);
  if (scheme === "tel") return acceptPhone(text, repairs, surroundings);
  if (scheme) {
    return refuse(
      "scheme",
      `Links here lead to http, https, mailto or tel addresses, or to a path of this site; “${scheme}:” is none of them.`,
      repairs,
    );
  }
  if (RELATIVE_PATH.test(text)) return acceptRooted(text, repairs, surroundings);
  return refuse(
    "not-an-address",
    "This does not look like an address. A web address has a host with a dot, such as shop.example/lamp; a path of this site starts with a slash.",
    repairs,
  );
}

const DELIMITED = /^<(https?:\/\/[^<>\s]+)>$/i;

// A page of prose may hold quotes and brackets in whatever order.
function bare(pasted: string): { text: string; repairs: Repair[] } {
  // Between angle brackets an address is exactly what stands there (RFC 3986, appendix C).
  const exact = DELIMITED.exec(pasted.trim())?.[1];
  if (exact !== undefined)
    return { text: exact, repairs: [{ code: "unwrapped", message: "Took off the brackets." }] };
  const whole = outOfLines(pasted.trim());
  const { text, repairs } = unwrap(whole.repairs.length > 0 ? whole.text : pasted);
  const taken = { text, repairs: [...whole.repairs, ...repairs] };
  if (mailIn(taken.text) !== undefined && !taken.text.includes("?")) return taken;
  const prose = outOfProse(taken.text);
  if (prose.text === taken.text) return taken;
  const again = unwrap(prose.text);
  return { text: again.text, repairs: [...taken.repairs, ...prose.repairs, ...again.repairs] };
}

function acceptRooted(text: string, repairs: Repair[], surroundings: AddressSurroundings): Repaired {
  repairs.push({ code: "rooted", message: "Read it as a path from the root of this site." });
  const path = `/${text.replace(/^(?:\.{0,2}[/\\]+)+/, "")}`;
  return accept(encodeSpaces(path, repairs), "path", repairs, surroundings);
}

// Endings of files that are no domains: `brochure.pdf` is not a host.
const FILE_NAME =
  /^[\p{L}\p{N}][\p{L}\p{M}\p{N}_~.-]*\.(?:html?|php\d?|aspx?|jsp|pdf|png|jpe?g|gif|webp|avif|svg|css|js|json|xml|txt|csv|docx?|xlsx?|pptx?|odt|ods|epub|mp3|mp4|ics|rss)(?=$|[?#])/iu;

function acceptWeb(text: string, repairs: Repair[], surroundings: AddressSurroundings): Repaired {
  const authority = /^https?:\/\/([^/?#\\]*)/i.exec(text)?.[1] ?? "";
  if (authority === "" || authority.startsWith(":")) {
    return refuse(
      "host",
      "The address has no host. After https:// comes a name such as shop.example.",
      repairs,
    );
  }
  if (authority.includes("@")) {
    return refuse(
      "credentials",
      "The address carries a user name or password before the host. Take out everything up to the @.",
      repairs,
    );
  }
  // The URL Standard lets a semicolon pass, which no name has (RFC 1123 section 2.1).
  if (!URL.canParse(text) || authority.includes(";")) {
    return refuse(
      "host",
      `“${authority}” is not a host name. Letters, digits, hyphens and dots make one, such as shop.example.`,
      repairs,
    );
  }
  const url = new URL(text);
  if (/[^.]\.$/.test(url.hostname)) {
    // The root of the name system (RFC 1034 section 3.1) is the same host, and another name to whoever compares.
    url.hostname = rootless(url.hostname);
    repairs.push({ code: "host-dot", message: "Took the dot off the end of the host." });
  }
  const host = url.host;
  const typedHost = authority.replace(/:\d*$/, "");
  if (/[^\u0020-\u007F]/.test(typedHost)) {
    repairs.push({ code: "idna", message: `Wrote the host in its ASCII form, ${url.hostname} (IDNA).` });
  } else if (typedHost !== typedHost.toLowerCase() || /^[A-Z]/.test(text)) {
    repairs.push({ code: "case", message: "Put scheme and host in lower case." });
  }
  const rest = text.slice(text.indexOf(authority) + authority.length);
  if (rest !== "" && url.href !== `${url.protocol}//${host}${rest.startsWith("/") ? "" : "/"}${rest}`) {
    repairs.push({
      code: "encoded",
      message: "Percent-encoded or resolved characters that an address cannot hold as they are.",
    });
  }
  return accept(url.href, "web", repairs, surroundings, typedHost);
}

function acceptMail(text: string, repairs: Repair[], surroundings: AddressSurroundings): Repaired {
  const address = mailAddress(text, repairs);
  if (address !== undefined) return accept(address, "mail", repairs, surroundings);
  return refuse(
    "not-an-address",
    "A mail address has a name, an @ and a host, such as post@lowlantern.example; several have commas between them.",
    repairs,
  );
}

function acceptPhone(text: string, repairs: Repair[], surroundings: AddressSurroundings): Repaired {
  const address = phoneAddress(text, repairs);
  if (address !== undefined) return accept(address, "phone", repairs, surroundings);
  return refuse(
    "not-an-address",
    "A phone number is digits with an optional + before them, such as +44 20 7946 0000 (RFC 3966).",
    repairs,
  );
}

function accept(
  address: string,
  form: AddressForm,
  repairs: Repair[],
  surroundings: AddressSurroundings,
  typedHost?: string,
): Repaired {
  if (address.length > MAX_ADDRESS_LENGTH) {
    return refuse(
      "too-long",
      `The address has ${address.length} characters; more than ${MAX_ADDRESS_LENGTH} do not arrive everywhere. Make it shorter.`,
      repairs,
    );
  }
  const warnings = form === "web" ? warningsFor(new URL(address), typedHost ?? "", surroundings) : [];
  return { ok: true, address: address as Address, form, repairs, warnings, others: [] };
}

function refuse(code: RefusalCode, message: string, repairs: Repair[]): Repaired {
  const reason: Refusal = { code, message };
  return { ok: false, reason, repairs, others: [] };
}

function encodeSpaces(text: string, repairs: Repair[]): string {
  const encoded = text.replace(/[\s"<>`\\^{|}]/g, (c) => (c === "\\" ? "/" : encodeURIComponent(c)));
  if (encoded !== text)
    repairs.push({
      code: "encoded",
      message: "Percent-encoded characters that an address cannot hold as they are.",
    });
  return encoded;
}

/** True when pasted text reads as one address rather than as words to search for. */
export function looksLikeAddress(text: string): boolean {
  if (text.length > MAX_PASTED) return false;
  const { text: bare } = unwrap(text);
  if (/^(?:[/#?]|\.{1,2}\/)/.test(bare) || mailIn(bare) !== undefined || isPhone(bare)) return true;
  if (/\s/.test(bare) && !/^[a-z]+:[/\\]/i.test(bare)) return false;
  return startsWithHost(bare) || /^[a-z][a-z\d+.-]*:/i.test(bare) || /^[a-z]{3,7}[:;]?[/\\]{2}/i.test(bare);
}
