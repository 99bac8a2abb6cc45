import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { themeStyles } from "./themeStyles.ts";

export default defineConfig({
  plugins: [
    themeStyles(),
    react({ compiler: true }), // a panel renders again only when what it shows has changed
    VitePWA({
      // A new version waits until it is asked for: a page never changes under the hands.
      registerType: "prompt",
      injectRegister: false,
      manifest: {
        name: "Pinhole",
        short_name: "Pinhole",
        description: "Which filter, in this light?",
        start_url: "/card",
        display: "standalone",
        background_color: "#f3f3f0",
        theme_color: "#37379c",
        shortcuts: [
          { name: "Field card", url: "/card", description: "What to set, what to check, what next" },
          { name: "Shoots", url: "/shoot", description: "The day and its shots" },
          { name: "Kit", url: "/kit", description: "Cameras and filters" },
        ].map((shortcut) => ({ ...shortcut, icons: [{ src: "/icon-192.png", sizes: "192x192", type: "image/png" }] })),
        share_target: {
          action: "/share",
          method: "POST",
          enctype: "multipart/form-data",
          params: {
            title: "title",
            text: "text",
            url: "url",
            files: [
              {
                name: "files",
                accept: ["image/*", "text/csv", "text/plain", "application/json", ".csv", ".gpx", ".zip", ".json"],
              },
            ],
          },
        },
        icons: [
          { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
        ],
      },
      workbox: {
        // Who writes programs against it has a server.
        globIgnores: ["api-docs.html", "assets/apiDocs-*"],
        globPatterns: ["**/*.{js,css,html,woff2,png,svg,gz}"],
        maximumFileSizeToCacheInBytes: 4_000_000,
        // The page answers for every address of its own. The API is never the worker's.
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//, /^\/(ca\.crt|notices\.txt|metrics|api-docs\.html)$/],
        cleanupOutdatedCaches: true,
        importScripts: ["/past-worker.js", "/share-target.js"],
      },
    }),
  ],
  worker: { format: "es" },
  // The server embeds what is written here.
  build: {
    rolldownOptions: {
      input: { index: "index.html", apiDocs: "api-docs.html" },
      // The component library makes its whole theme at once: what is not used of it is left out.
      output: {
        codeSplitting: {
          // What the first page needs comes in two pieces, what places share in one more.
          groups: [
            { name: "libraries", tags: ["$initial"], test: /node_modules(?!.*swagger)/, priority: 2 },
            { name: "first", tags: ["$initial"], test: /ui.src.(?!apiDocs)/, priority: 1 },
            // Nothing in it is imported by less than two places, so that it never imports what is not in it.
            { name: "shared", minShareCount: 2 },
          ],
        },
      },
      treeshake: { manualPureFunctions: ["defineConfig", "defineRecipe", "defineSlotRecipe", "createSystem"] },
    },
    outDir: "../internal/web/dist",
    emptyOutDir: true,
    target: "es2023",
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 3_000, // in kB: what is that large, such as what decodes stills, comes when it is wanted
  },
  server: { proxy: { "/api": "http://127.0.0.1:8321" } },
});
