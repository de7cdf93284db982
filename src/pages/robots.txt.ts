import type { APIRoute } from "astro";

// All but the sign-in is for people who have signed in, and that says itself that it is not to be listed (RFC 9309).
const ROBOTS = "User-agent: *\nDisallow: /api/\n";

export const GET: APIRoute = () => new Response(ROBOTS, { headers: { "Content-Type": "text/plain" } });
