import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

// The build goes where the Go program embeds it from. The room's page is one of its own, so that phones load little.
export default defineConfig({
  plugins: [
    react(),
    // The service worker keeps the teacher's pages, with the core, so that they open without the program.
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src/apart",
      filename: "service.ts",
      injectRegister: false, // src/apart/hold.ts does it
      manifest: false, // public/manifest.webmanifest
      injectManifest: {
        globPatterns: ["index.html", "assets/*", "*.{svg,png,webmanifest}"],
        globIgnores: ["assets/room-*", "assets/LicencesView-*"],
        maximumFileSizeToCacheInBytes: 20 << 20,
        dontCacheBustURLsMatching: /^assets\//, // their names change with their content
      },
    }),
  ],
  build: {
    outDir: "../web/dist",
    emptyOutDir: true,
    chunkSizeWarningLimit: 400,
    rolldownOptions: {
      input: ["index.html", "room.html"],
      // The texts of the teacher's screens in one language are two files: those of Today, and all others.
      output: {
        codeSplitting: {
          groups: [
            {
              name: (id) => {
                const [, tag, file] = /\/language\/([a-z]{2})\/(\w+)\.json$/.exec(id) ?? [];
                if (tag === undefined || file === "room" || file === "page") return null;
                return ["facts", "frame", "today"].includes(file!) ? `texts-${tag}` : `all-texts-${tag}`;
              },
            },
          ],
        },
      },
    },
  },
  css: {
    // Bootstrap 5.3 is written for an earlier Sass.
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ["import", "global-builtin", "color-functions", "if-function"],
      },
    },
  },
  test: { setupFiles: ["src/test/english.ts"] },
  server: { proxy: { "/api": "http://127.0.0.1:7777" } },
});
