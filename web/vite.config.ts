import { fileURLToPath } from "node:url";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url));

const server = process.env.OMBREL_SERVER ?? "http://127.0.0.1:8000";

// `bin/dev`: the page comes from here and reloads hot, all else from the server
export default defineConfig(({ command }) => ({
  base: command === "serve" && !process.env.VITEST ? "/" : "/static/",
  server: {
    fs: { allow: [at("..")] }, // the guide is the project's own
    proxy: Object.fromEntries(
      ["/api", "/sign-in", "/sign-out", "/static", "/live", "/mine", "/ride"].map((path) => [
        path,
        { target: server, changeOrigin: false, ws: ["/live", "/mine"].includes(path) }, // the origin is proof
      ]),
    ),
  },
  plugins: [react(), tailwindcss()],
  html: { cspNonce: "__NONCE__" }, // the server gives each page its own
  build: {
    chunkSizeWarningLimit: 1_000, // kB: it is asked for once, and kept
    license: { fileName: "licences.txt" }, // of all that is in it, beside it
    manifest: true, // by it the server's own pages find their style
    rollupOptions: {
      input: {
        main: at("index.html"),
        phone: at("phone.html"),
        ride: at("ride.html"),
        signin: at("src/signin.css"),
      },
    },
  },
  // a busy machine may stall for seconds; only a failing test waits so long
  test: { environment: "happy-dom", include: ["src/**/*.test.{ts,tsx}"], testTimeout: 60_000 },
}));
