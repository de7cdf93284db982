import { createHash } from "node:crypto";
import idleDirective from "astro/runtime/client/idle.prebuilt.js";
import onlyDirective from "astro/runtime/client/only.prebuilt.js";
import islandScript from "astro/runtime/server/astro-island.prebuilt.js";
import { SPECULATION } from "./speculation.ts";

// The scripts that Astro writes into a screen to wake its islands, and what is fetched early; no other inline script runs.
const INLINE = [idleDirective, onlyDirective, islandScript, SPECULATION]
  .map((script) => `'sha256-${createHash("sha256").update(script).digest("base64")}'`)
  .join(" ");

// Editors write style elements of their own at run time: styles stay open, scripts do not.
const POLICY = [
  "default-src 'self'",
  "img-src 'self' data: http: https:",
  "style-src 'self' 'unsafe-inline'",
  `script-src 'self' ${INLINE}`,
  "object-src 'none'",
  "base-uri 'self'",
  "frame-ancestors 'none'",
  "form-action 'self'",
].join("; ");

/** Headers of everything that the workspace answers, unless an answer says otherwise. */
export const WORKSPACE_HEADERS: Readonly<Record<string, string>> = {
  "X-Content-Type-Options": "nosniff",
  "X-Frame-Options": "DENY",
  "Referrer-Policy": "same-origin",
  "Content-Security-Policy": POLICY,
  "Cross-Origin-Opener-Policy": "same-origin",
  "Permissions-Policy":
    "camera=(), microphone=(), geolocation=(), payment=(), usb=(), clipboard-read=(self), clipboard-write=(self)",
};
