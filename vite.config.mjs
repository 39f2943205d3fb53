import react from '@vitejs/plugin-react';
import tailwind from '@tailwindcss/vite';
import { defineConfig } from 'vite';

/** What the page is evaluated in, part by part (`web/main.ts`). */
const PARTS = [
  { name: 'react', test: /node_modules\/(react|react-dom|scheduler)\//, priority: 4 },
  { name: 'packages', test: /node_modules\//, priority: 3 },
  { name: 'document', test: /core\/(document|looks|canvas|colour|geometry|controls)[/.]/, priority: 2 },
  { name: 'core', test: /\/core\//, priority: 1 },
];

/** The page. */
export default defineConfig({
  root: 'web',
  plugins: [react(), tailwind()],
  worker: { format: 'es' },
  // The server puts a nonce of its own here in each answer (`server/http/headers.ts`).
  html: { cspNonce: 'tallow-nonce' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    target: 'es2022',
    chunkSizeWarningLimit: 1500,
    rolldownOptions: { output: { codeSplitting: { groups: PARTS } } },
  },
});
