import react from "@vitejs/plugin-react";
import { mergeConfig } from "vite";
import { viteSingleFile } from "vite-plugin-singlefile";
import usual from "./vite.config.ts";

const own = (file: string) => new URL(`src/tryout/${file}`, import.meta.url).pathname;

// The page to try the application with: one file, with all that it needs. Where a view asks another device, or the service
// worker, this page has something else.
const { plugins: _, build, ...shared } = usual;

export default mergeConfig(shared, {
  plugins: [react(), viteSingleFile()],
  publicDir: false,
  assetsInclude: ["**/*.gz"],
  resolve: {
    alias: [
      { find: /^(?:\.\.\/)+frame\/shell\/Shell$/, replacement: own("Shell.tsx") },
      { find: /^\.\.\/apart\/useLeader$/, replacement: own("useLeader.ts") },
      { find: /^\.\/microphone$/, replacement: own("microphone.ts") },
      { find: /^\.\/Over$/, replacement: own("Over.tsx") },
      { find: /^\.\/stream$/, replacement: own("stream.ts") },
    ],
  },
  build: { ...build, outDir: "../bin/tryout", rolldownOptions: { input: "tryout.html" } },
});
