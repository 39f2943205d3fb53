import { defineConfig } from 'vite';

/** The page that the browser's rows of the benchmarks are measured on. */
export default defineConfig({
  root: 'bench/page',
  build: { outDir: '../../dist/bench-page', emptyOutDir: true, target: 'es2022' },
});
