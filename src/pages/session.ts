import type { APIRoute } from "astro";
import { signInSchema } from "../core/objects/person.ts";
import { isOwnOrigin } from "../ui/own-origin.ts";

const COOKIE = "maprope_session";

/** Signs in. */
export const POST: APIRoute = async ({ request, locals, cookies }) => {
  if (!isOwnOrigin(request))
    return locals.problem(403, "Not from here", "Sign in on the workspace's own page.");
  const input = signInSchema.safeParse(await request.json().catch(() => ({})));
  if (!input.success)
    return locals.problem(422, "Not signed in", input.error.issues.map(({ message }) => message).join(" "));
  try {
    const { token, expires } = await locals.signIn(input.data);
    const secure = request.headers.get("x-forwarded-proto") === "https";
    cookies.set(COOKIE, token, { path: "/", httpOnly: true, sameSite: "lax", secure, expires });
    return new Response(null, { status: 204 });
  } catch (error) {
    return locals.refusal(error);
  }
};

/** Signs out. */
export const DELETE: APIRoute = async ({ request, locals, cookies }) => {
  if (!isOwnOrigin(request))
    return locals.problem(403, "Not from here", "Sign out on the workspace's own pages.");
  if (locals.session) await locals.signOut(locals.session);
  cookies.delete(COOKIE, { path: "/" });
  return new Response(null, { status: 204 });
};
