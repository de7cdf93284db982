import { getDomain, getPublicSuffix } from "tldts";
import { z } from "zod";
import { hostName } from "../ground/fields.ts";

/**
 * A host that readers find a site under: a name of several labels (RFC 1123 section 2.1), neither an address of the
 * network nor a wildcard nor this machine itself.
 */
export const publicHost = z
  .string("A host is text.")
  .superRefine((typed, context) => {
    if (/[*]/.test(typed)) refuseHost(context, `“${typed}” is a wildcard; name each host.`);
  })
  .pipe(hostName)
  .superRefine((name, context) => {
    if (name === "localhost")
      refuseHost(
        context,
        "localhost is this machine itself; give the site a name of its own, such as lowlantern.localhost.",
      );
    else if (/^[\d.]+$|[[\]:]/.test(name))
      refuseHost(context, `“${name}” is a network address; a site has a name, such as lowlantern.example.`);
    else if (!/^(?:(?!-)[a-z\d-]{1,63}(?<!-)\.)+(?!-)[a-z\d-]{1,63}(?<!-)$/.test(name) || name.length > 253)
      refuseHost(context, `“${name}” is not a host name of several parts, such as lowlantern.example.`);
    else if (
      getDomain(name, { extractHostname: false }) === null &&
      getPublicSuffix(name, { extractHostname: false }) === name
    )
      refuseHost(
        context,
        `Under “${name}” everybody has names of their own; give the site one, such as lowlantern.${name}.`,
      );
  });

function refuseHost(context: z.RefinementCtx, message: string): void {
  context.addIssue({ code: "custom", message });
}
