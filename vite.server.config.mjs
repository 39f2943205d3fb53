import { defineConfig } from 'vite';

/** The programs that run on Node.js: server, export worker, demo builder and benchmarks. */
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist/node',
    emptyOutDir: true,
    rollupOptions: {
      input: {
        server: 'server/main.ts',
        worker: 'server/worker.ts',
        backup: 'server/backup.ts',
        bench: 'bench/main.ts',
        sheets: 'server/sheets.ts',
        frames: 'server/frame-prints.ts',
        'picture-process': 'server/assets/picture-process.mjs',
      },
    },
  },
  ssr: { noExternal: [/^@tallow\//] },
  oxc: { decorator: { legacy: true, emitDecoratorMetadata: true } },
});
