import node from "@astrojs/node";
import react from "@astrojs/react";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "astro/config";
import { fewFiles } from "./scripts/few-files.mjs";
import { ownWords } from "./scripts/own-words.mjs";
import { sameIds } from "./scripts/same-ids.mjs";

export default defineConfig({
  output: "server",
  adapter: node({ mode: "middleware" }),
  // In one go: what is fetched later is not waited for, and no inline script puts it into its place.
  integrations: [react({ experimentalDisableStreaming: true })],
  outDir: process.env.MAPROPE_BUILD || "dist",
  // The API and the sign-in make their own check, which answers with problem documents.
  security: { checkOrigin: false },
  devToolbar: { enabled: false },
  vite: {
    plugins: [tailwindcss(), ownWords(), fewFiles(), sameIds()],
    build: { chunkSizeWarningLimit: 1200 },
    // Whatever it is started with, what was built is what is run.
    define: { "process.env.NODE_ENV": '"production"' },
    // What the server needs of packages is in its build: an installation has none of those that screens are made of.
    ssr: { noExternal: true },
  },
});
