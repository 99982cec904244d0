import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

// The build goes where the Go program embeds it from. The room's page is one of its own, so that phones load little.
export default defineConfig({
  plugins: [react()],
  build: {
    outDir: "../web/dist",
    emptyOutDir: true,
    chunkSizeWarningLimit: 400,
    rolldownOptions: {
      input: ["index.html", "room.html"],
    },
  },
  css: {
    // Bootstrap 5.3 is written for an earlier Sass.
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ["import", "global-builtin", "color-functions", "if-function"] },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:7777" } },
});
