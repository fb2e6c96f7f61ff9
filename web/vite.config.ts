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

/** The notices of what is shipped with the pages, from what the build really took in: packages by their licence's words. */
function notices(): Plugin {
  return {
    name: "notices",
    apply: "build",
    generateBundle(_, bundle) {
      const modules = Object.values(bundle).flatMap((c) => (c.type === "chunk" ? Object.keys(c.modules) : []));
      const files = [...modules, ...this.getModuleIds()];
      const folders = new Set(
        files.flatMap((id) => /^.*node_modules[\\/](?:@[^\\/]+[\\/])?[^\\/]+/.exec(id)?.[0] ?? []),
      );
      const byText = new Map<string, string[]>();
      for (const folder of [...folders].sort()) {
        const told = JSON.parse(readFileSync(`${folder}/package.json`, "utf8")) as Record<string, string>;
        const file = readdirSync(folder).find((n) => /^(licen[cs]e|copying)/i.test(n));
        const text = file ? readFileSync(`${folder}/${file}`, "utf8").trim() : `Licence: ${told["license"]}`;
        byText.set(text, [...(byText.get(text) ?? []), `${told["name"]} ${told["version"]}`]);
      }
      if (byText.size === 0) this.error("no package was found: the notices would be empty");
      const source = [...byText]
        .map(([text, names]) => `${names.join(", ")}\n\n${text}\n`)
        .join(`\n${"-".repeat(72)}\n\n`);
      this.emitFile({ type: "asset", fileName: "notices.txt", source });
    },
  };
}

export default defineConfig({
  plugins: [react(), keptFiles(), notices()],
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
