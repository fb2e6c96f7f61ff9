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
    // libraries change seldom: a chunk of their own stays in the browser's cache when the application changes
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: "libraries", test: /node_modules/ }] } } },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8421" } },
  test: { environment: "jsdom", include: ["src/**/*.test.{ts,tsx}"] },
});
