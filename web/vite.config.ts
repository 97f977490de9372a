import optimizeLocales from "@react-aria/optimize-locales-plugin";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react({ compiler: true }), { ...optimizeLocales.vite({ locales: ["en-US"] }), enforce: "pre" }],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { target: "es2022", assetsInlineLimit: 0, reportCompressedSize: true },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
});
