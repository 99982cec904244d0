import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

// The build goes where the Go program embeds it from.
export default defineConfig({
  plugins: [react()],
  build: { outDir: "../web/dist", emptyOutDir: true, chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:7777" } },
});
