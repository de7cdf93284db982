import node from "@astrojs/node";
import react from "@astrojs/react";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "astro/config";

export default defineConfig({
  output: "server",
  adapter: node({ mode: "middleware" }),
  integrations: [react()],
  outDir: process.env.MAPROPE_BUILD || "dist",
  // The API and the sign-in make their own check, which answers with problem documents.
  security: { checkOrigin: false },
  devToolbar: { enabled: false },
  vite: { plugins: [tailwindcss()], build: { chunkSizeWarningLimit: 1200 } },
});
