import type { APIRoute } from "astro";
import { signInSchema } from "../core/people/person.ts";
import { isOwnOrigin } from "../ui/frame/own-origin.ts";

const MAX_BYTES = 10_000;

/** Signs in. */
export const POST: APIRoute = async ({ request, locals, cookies }) => {
  if (!isOwnOrigin(request, locals.secure))
    return locals.problem(403, "Not from here", "Sign in on the workspace's own page.");
  try {
    const input = signInSchema.safeParse(await locals.json(request, MAX_BYTES));
    if (!input.success)
      return locals.problem(422, "Not signed in", input.error.issues.map(({ message }) => message).join(" "));
    const { token, expires } = await locals.signIn(input.data);
    const { secure } = locals;
    cookies.set(locals.cookie, token, { path: "/", httpOnly: true, sameSite: "lax", secure, expires });
    return new Response(null, { status: 204, headers: { "Cache-Control": "no-store" } });
  } catch (error) {
    return locals.refusal(error);
  }
};

/** Signs out. */
export const DELETE: APIRoute = async ({ request, locals, cookies }) => {
  if (!isOwnOrigin(request, locals.secure))
    return locals.problem(403, "Not from here", "Sign out on the workspace's own pages.");
  try {
    if (locals.session) await locals.signOut(locals.session);
  } catch (error) {
    return locals.refusal(error);
  }
  cookies.delete(locals.cookie, { path: "/", secure: locals.secure });
  return new Response(null, { status: 204, headers: { "Cache-Control": "no-store" } });
};
