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
    // what every screen needs of the libraries changes seldom: a chunk of its own stays in the browser's cache
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: "libraries",
              test: /node_modules[\\/](react|react-dom|react-router|scheduler|@tanstack|styled-components)[\\/]/,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8421" } },
  test: { environment: "jsdom", include: ["src/**/*.test.{ts,tsx}"] },
});
