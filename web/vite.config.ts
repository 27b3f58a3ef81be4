import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

const server = `http://127.0.0.1:${process.env["MOSSBANK_PORT"] ?? "8750"}`;

export default defineConfig({
  // Files are named from where the page stands; the server says in the page where that is.
  base: "./",
  plugins: [react(), tailwindcss()],
  build: { outDir: "target/classes/static", emptyOutDir: true, assetsInlineLimit: 0 },
  test: { setupFiles: ["src/test/setup.ts"] },
  server: { host: "127.0.0.1", port: 5173, proxy: { "/api": server } },
});
