import { defineMiddleware } from "astro:middleware";

const OPEN = /^\/(?:sign-in|session|healthz|api\/v1(?:\/|$))/;

/** Screens are for people who have signed in; everybody else is asked to, and comes back to where they wanted to go. */
export const onRequest = defineMiddleware((context, next) => {
  const { pathname, search } = context.url;
  if (context.locals.actor || OPEN.test(pathname)) return next();
  return context.redirect(`/sign-in?to=${encodeURIComponent(pathname + search)}`);
});
