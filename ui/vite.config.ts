import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  // The server embeds what is written here.
  build: { outDir: "../internal/web/dist", emptyOutDir: true, target: "es2023", modulePreload: { polyfill: false } },
  server: { proxy: { "/api": "http://127.0.0.1:8321" } },
});
