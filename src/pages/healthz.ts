import type { APIRoute } from "astro";

export const GET: APIRoute = async ({ locals }) =>
  Response.json(await locals.health(), { headers: { "Cache-Control": "no-store" } });
