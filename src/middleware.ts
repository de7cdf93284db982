import { defineMiddleware } from "astro:middleware";

/**
 * The routes that answer somebody who has not signed in, by the pattern of the route itself: everything else is for
 * people who have. The API and the session check for themselves.
 */
const OPEN: ReadonlySet<string> = new Set(["/sign-in", "/session", "/healthz", "/api/v1/[...call]"]);

/** Screens are for people who have signed in; everybody else is asked to, and comes back to where they wanted to go. */
export const onRequest = defineMiddleware((context, next) => {
  if (context.locals.actor || OPEN.has(context.routePattern)) return next();
  const { pathname, search } = context.url;
  return context.redirect(`/sign-in?to=${encodeURIComponent(pathname + search)}`);
});
