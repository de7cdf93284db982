import type { APIRoute } from "astro";
import { isOwnOrigin } from "../../../ui/frame/own-origin.ts";

export const prerender = false;

/** Every call of the API; what each takes and answers stands in the desk's operations. */
export const ALL: APIRoute = async ({ request, locals }) => {
  const header = request.headers.get("authorization");
  if (header !== null) {
    const token = /^Bearer ([\w.~+/=-]{16,200})$/i.exec(header)?.[1];
    try {
      return await locals.call(request, token ? await locals.bearer(token) : undefined);
    } catch (error) {
      return locals.refusal(error);
    }
  }
  if (
    locals.actor &&
    !/^(?:GET|HEAD|OPTIONS)$/.test(request.method) &&
    !isOwnOrigin(request, locals.secure)
  ) {
    return locals.problem(
      403,
      "Not from here",
      "A change with a browser session must come from the workspace itself.",
    );
  }
  return locals.call(request, locals.actor);
};
