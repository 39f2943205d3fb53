/**
 * For work on Tallow itself: the application as `npm start` runs it, and the page beside it from its sources, renewed as
 * they change. The server and its worker are built once; start anew after a change of theirs.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ensurePackages, root } from './system.mjs';

const PAGE_PORT = Number(process.env['TALLOW_DEV_PORT'] ?? 4680);
const port = Number(process.env['TALLOW_PORT'] ?? 4600);
const server = `http://127.0.0.1:${port}`;

ensurePackages();
const application = spawn(process.execPath, [join(root, 'scripts', 'start.mjs')], {
  cwd: root,
  stdio: ['ignore', 'inherit', 'inherit'],
  env: { ...process.env, TALLOW_PORT: String(port) },
});
application.once('exit', (code) => process.exit(code ?? 1));
process.once('exit', () => application.kill());
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(0));

const isWell = () =>
  fetch(`${server}/api/health`).then(
    ({ ok }) => ok,
    () => false,
  );
while (!(await isWell())) await pause(200);
const { createServer } = await import('vite');
const page = await createServer({
  configFile: join(root, 'vite.config.mjs'),
  server: {
    // The name that the start command prints: what a browser keeps for it holds for all ports.
    host: 'localhost',
    port: PAGE_PORT,
    // As the server sends them: the page's threads may share memory.
    headers: { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' },
    proxy: {
      // The page's own sources have a folder of that name.
      '^/api/(?!.*[.]ts)': {
        target: server,
        changeOrigin: true,
        // The server answers its own page alone.
        configure: (proxy) => proxy.on('proxyReq', (request) => request.setHeader('origin', server)),
      },
    },
  },
});
await page.listen();
console.log(`The page, renewed as you change it, is at http://localhost:${page.config.server.port}`);
