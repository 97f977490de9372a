import optimizeLocales from "@react-aria/optimize-locales-plugin";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { manual } from "./manual.ts";

export default defineConfig({
  plugins: [
    manual(),
    react({ compiler: true }),
    { ...optimizeLocales.vite({ locales: ["en-US"] }), enforce: "pre" },
  ],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { target: "es2022", assetsInlineLimit: 0, reportCompressedSize: true },
  server: { fs: { allow: [".."] }, proxy: { "/api": "http://127.0.0.1:8000" } },
});
