/** Builds the page and the programs that run on Node.js, when anything they are made of has changed. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './system.mjs';

const SOURCES = [
  'core',
  'server',
  'web',
  'demo',
  'bench',
  'vite.config.mjs',
  'vite.server.config.mjs',
  'package-lock.json',
  'tsconfig.base.json',
];

function stampOf(path, hash) {
  const full = join(root, path);
  if (!existsSync(full)) return;
  const found = statSync(full);
  if (found.isDirectory()) {
    for (const name of readdirSync(full).sort())
      if (name !== 'node_modules' && name !== 'dist') stampOf(join(path, name), hash);
  } else {
    hash.update(`${path} `).update(readFileSync(full));
  }
}

/** Builds if needed. What is built is the same for start, tests and benchmarks. */
export function ensureBuilt() {
  const hash = createHash('sha256');
  for (const source of SOURCES) stampOf(source, hash);
  const stamp = hash.digest('hex');
  const file = join(root, 'dist', 'stamp');
  if (existsSync(file) && readFileSync(file, 'utf8') === stamp) return;
  console.log('Building …');
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
  for (const config of ['vite.config.mjs', 'vite.server.config.mjs']) {
    execFileSync(process.execPath, [vite, 'build', '--config', config, '--logLevel', 'warn'], {
      cwd: root,
      stdio: 'inherit',
    });
  }
  writeFileSync(file, stamp);
}

if (process.argv[1] === import.meta.filename) ensureBuilt();
