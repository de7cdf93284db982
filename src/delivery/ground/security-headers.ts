/** Headers of every document that readers get: no scripts, nothing guessed, no frame but our own kind. */
export const SECURITY = [
  "X-Content-Type-Options",
  "nosniff",
  "Permissions-Policy",
  "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
  // A link whose author asked for the opener keeps it.
  "Cross-Origin-Opener-Policy",
  "same-origin-allow-popups",
  "Referrer-Policy",
  "strict-origin-when-cross-origin",
  "Content-Security-Policy",
  "default-src 'self'; img-src * data:; style-src 'self' 'unsafe-inline'; script-src 'none'; object-src 'none'; base-uri 'none'; frame-ancestors 'self'; form-action 'self'",
];
