import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { outDir: "../src/brassclock/web", emptyOutDir: true, target: "es2022", assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:8421" } },
  test: { environment: "jsdom", include: ["src/**/*.test.{ts,tsx}"] },
});
