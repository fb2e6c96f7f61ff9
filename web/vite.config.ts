import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
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
      output: {
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
