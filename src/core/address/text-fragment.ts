/** Words beyond this are not needed to find the place. */
const MOST = 200;

/**
 * An address that leads a browser to some words of its page (“URL Fragment Text Directives”, section 3.2): a hyphen, a comma and an
 * ampersand have a meaning there and are percent-encoded too. Without words it is the address itself.
 */
export function addressOfWords(address: string, words: string): string {
  const shown = words.replace(/\s+/g, " ").trim().slice(0, MOST);
  if (shown === "") return address;
  const encoded = encodeURIComponent(shown.toWellFormed()).replace(
    /[-,&]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  );
  return `${address.replace(/#.*/s, "")}#:~:text=${encoded}`;
}
