import { z } from "zod";

/** `shop.example`, or `*.shop.example` for its subdomains; in lower-case ASCII form (IDNA). */
export const domainPattern = z
  .string("A domain is text.")
  .trim()
  .transform((typed, context) => {
    const wildcard = typed.startsWith("*.");
    const name = wildcard ? typed.slice(2) : typed;
    if (name !== "" && !/[*/\s?#@:\\]/.test(name) && URL.canParse(`http://${name}/`)) {
      return `${wildcard ? "*." : ""}${new URL(`http://${name}/`).hostname}`;
    }
    context.addIssue({ code: "custom", message: domainMessage(typed) });
    return z.NEVER;
  });

function domainMessage(typed: string): string {
  if (/^[a-z]+:\/\//i.test(typed))
    return `“${typed}” is an address. A rule names the domain alone, such as shop.example.`;
  if (typed.includes("*"))
    return `“${typed}”: the star stands alone in front, as in *.shop.example, and means the subdomains.`;
  return `“${typed}” is not a domain. Write shop.example, or *.shop.example for its subdomains.`;
}
