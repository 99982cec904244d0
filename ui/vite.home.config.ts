import react from "@vitejs/plugin-react";
import { mergeConfig } from "vite";
import { viteSingleFile } from "vite-plugin-singlefile";
import usual from "./vite.config.ts";

// The page that plays a practice at home: one file, which asks nothing of any server. It draws with the same components as
// the room; a small library with the same interface takes the place of React, which alone would fill most of the file.
const { plugins: _, build, ...shared } = usual;

export default mergeConfig(shared, {
  plugins: [react(), viteSingleFile()],
  resolve: {
    alias: {
      react: "preact/compat",
      "react-dom/client": "preact/compat/client",
      "react-dom": "preact/compat",
      "react/jsx-runtime": "preact/jsx-runtime",
    },
  },
  build: { ...build, emptyOutDir: false, rolldownOptions: { input: "home.html" } },
});
