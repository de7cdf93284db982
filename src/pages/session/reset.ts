import type { APIRoute } from "astro";
import { isOwnOrigin } from "../../ui/frame/own-origin.ts";

const MAX_BYTES = 10_000;

/** Mails whoever has an address a link for a new password; the same answer, whether anybody has it. */
export const POST: APIRoute = async ({ request, locals }) => {
  if (!isOwnOrigin(request, locals.secure))
    return locals.problem(403, "Not from here", "Ask for it on the workspace's own page.");
  try {
    await locals.reset(await locals.json(request, MAX_BYTES));
    return new Response(null, { status: 202, headers: { "Cache-Control": "no-store" } });
  } catch (error) {
    return locals.refusal(error);
  }
};
