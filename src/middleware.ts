import type { APIContext, MiddlewareNext } from "astro";
import { defineMiddleware } from "astro:middleware";
import { inServerFrame } from "./ui/frame/server-frame.ts";

/**
 * The routes that answer somebody who has not signed in, by the pattern of the route itself: everything else is for
 * people who have. The API and the session check for themselves.
 */
const OPEN: ReadonlySet<string> = new Set([
  "/sign-in",
  "/session",
  "/session/reset",
  "/welcome",
  "/welcome/take",
  "/healthz",
  "/robots.txt",
  "/api/v1/[...call]",
]);

const SETTING_UP: ReadonlySet<string> = new Set(["/", "/[site]/account"]);

/** Screens are for people who have signed in; everybody else is asked to, and comes back to where they wanted to go. */
export const onRequest = defineMiddleware((context, next) => {
  // Whoever must set up a second factor first does that, and nothing else.
  if (
    context.locals.actor?.mustSetUp &&
    !SETTING_UP.has(context.routePattern) &&
    !OPEN.has(context.routePattern)
  )
    return context.redirect("/");
  if (OPEN.has(context.routePattern)) return next();
  if (context.locals.actor) return drawn(context, next);
  const { pathname, search } = context.url;
  return context.redirect(`/sign-in?to=${encodeURIComponent(pathname + search)}`);
});

const SCREENS = "/[site]/";

// A screen is drawn whole within its frame, before anything of it is sent.
async function drawn(
  { routePattern, url, request, locals }: APIContext,
  next: MiddlewareNext,
): Promise<Response> {
  if (!routePattern.startsWith(SCREENS)) return next();
  const ask = (path: string, init: RequestInit): Promise<Response> =>
    locals.call(new Request(new URL(path, url), { ...init, signal: request.signal }), locals.actor);
  return inServerFrame({ url, cookies: request.headers.get("cookie") ?? "", ask }, async () => {
    const response = await next();
    return new Response(await response.text(), response);
  });
}
