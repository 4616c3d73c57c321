import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: { proxy: { "/api": "http://127.0.0.1:8080" } },
  build: {
    // each page's list of what it needs would be part of the first load; pages are fetched ahead while nothing else is done
    modulePreload: { resolveDependencies: (_, needs, { hostType }) => (hostType === "html" ? needs : []) },
  },
  test: {
    // a busy machine may take its time; no test waits for this
    testTimeout: 30_000,
    environment: "jsdom",
    // one page for all files, which clean up after themselves: a page of its own takes longer than a file's tests
    pool: "threads",
    isolate: false,
    setupFiles: ["src/tests/tidied.ts"],
  },
});
