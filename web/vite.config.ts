import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

const PUBLIC = "public";
/** The files that the page on a tablet keeps, told to its worker by the build. */
function keptFiles(): Plugin {
  const hashed = (name: string) =>
    createHash("sha256")
      .update(readFileSync(`${PUBLIC}/${name}`))
      .digest("hex")
      .slice(0, 12);
  return {
    name: "kept-files",
    apply: "build",
    generateBundle(_, bundle) {
      const built = Object.keys(bundle).filter(
        (n) => n.startsWith("assets/") && !/-(greek|cyrillic|vietnamese)/.test(n),
      );
      const files = [
        ...built.map((n) => ({ url: `/${n}`, revision: null })),
        ...readdirSync(PUBLIC).map((n) => ({ url: `/${n}`, revision: hashed(n) })),
      ];
      const worker = bundle["sw.js"];
      if (worker?.type !== "chunk" || worker.imports.length > 0) this.error("sw.js is to be one file of its own");
      worker.code = worker.code.replace("self.__KEPT_FILES", JSON.stringify(files));
    },
  };
}

export default defineConfig({
  plugins: [react(), keptFiles()],
  html: { cspNonce: "__CSP_NONCE__" },
  build: {
    outDir: "../src/brassclock/web",
    emptyOutDir: true,
    target: "es2022",
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    // what every screen needs stands in two files: one of libraries, which changes seldom and stays in the browser's
    // cache, and one of our own; a dozen small ones would each be asked for before the first is run
    rolldownOptions: {
      input: { index: "index.html", sw: "src/sw.ts" },
      output: {
        entryFileNames: (chunk) => (chunk.name === "sw" ? "sw.js" : "assets/[name]-[hash].js"),
        codeSplitting: {
          groups: [
            {
              name: "libraries",
              test: /node_modules[\\/](react|react-dom|react-router|scheduler|@tanstack|styled-components|d3-(scale|array|interpolate|color|format|time|time-format)|internmap|openapi-fetch|idb)[\\/]/,
            },
            {
              name: "frame",
              test: /src[\\/](api[\\/](client|clock|stale|kitchen|edits|bake|key)|words[\\/](format|steps)|frame[\\/]units|controls[\\/](Button|Notice)|instruments[\\/]Glyph|alarms[\\/]channels)\.tsx?$/,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8421" } },
  test: { environment: "jsdom", include: ["src/**/*.test.{ts,tsx}"] },
});
