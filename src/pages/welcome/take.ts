import type { APIRoute } from "astro";
import { isOwnOrigin } from "../../ui/frame/own-origin.ts";

const MAX_BYTES = 10_000;

/** Whose link it is with which a password is chosen; with a password, it is used. */
export const POST: APIRoute = async ({ request, locals }) => {
  if (!isOwnOrigin(request, locals.secure))
    return locals.problem(403, "Not from here", "Open the link on the workspace's own page.");
  try {
    const answer = await locals.link(await locals.json(request, MAX_BYTES));
    return Response.json(answer, { headers: { "Cache-Control": "no-store" } });
  } catch (error) {
    return locals.refusal(error);
  }
};
