import react from '@vitejs/plugin-react';
import tailwind from '@tailwindcss/vite';
import { defineConfig } from 'vite';

/** What the page is evaluated in, part by part (`web/main.ts`). */
const PARTS = [
  // What the beginning itself needs: within another part, that would be evaluated along with it.
  { name: 'begin', test: /node_modules\/get-nonce\/|vite\/preload-helper/, priority: 9 },
  { name: 'react', test: /node_modules\/(react|react-dom|scheduler)\//, priority: 8 },
  {
    name: 'interface',
    test: /node_modules\/(radix-ui|@radix-ui|@floating-ui|react-[^/]+|use-[^/]+|aria-hidden|lucide-react|@dnd-kit|@tanstack|zustand)\//,
    priority: 7,
  },
  // Asked for when a zip comes in.
  { name: 'zip', test: /node_modules\/fflate\//, priority: 7 },
  { name: 'packages', test: /node_modules\//, priority: 6 },
  { name: 'ground', test: /core\/(looks|canvas|colour|geometry|controls)[/.]/, priority: 5 },
  { name: 'document', test: /core\/document[/.]/, priority: 4 },
  { name: 'core', test: /\/core\//, priority: 3 },
  // Rooms that know only one another and those below them (docs/architecture.md): what lies under every step.
  {
    name: 'base',
    test: /web\/(actions|api|hand|memory|parts|picture|playback|references|saving|screen|selection|shot|sound|swatches|view|workers)\//,
    priority: 2,
  },
  // What the desk is put together from, without the pages themselves.
  { name: 'tools', test: /web\/(brush|derived|fills|looks|palette|pen|smears|tone|tools)\//, priority: 1 },
  {
    name: 'panels',
    test: /web\/(export|intake|layers|plan|shelf|strip|time|versions|wheel)\//,
    priority: 1,
  },
];

/** Parts that every visit needs: what reads zips is asked for by itself, and what the beginning needs stands in the page. */
const AHEAD = [...PARTS.map(({ name }) => name).filter((name) => name !== 'zip' && name !== 'begin'), 'application'];

/**
 * Has the browser fetch and compile all parts from the beginning: asked for one after another, each was fetched only when
 * the one before it had been evaluated, and the page waited.
 */
const partsAhead = {
  name: 'parts-ahead',
  transformIndexHtml: {
    order: 'post',
    handler: (html, { bundle }) => {
      // With `npm run dev` there are no parts.
      if (!bundle) return [];
      const chunks = Object.values(bundle).filter(({ type }) => type === 'chunk');
      return AHEAD.flatMap((part) => {
        const named = chunks.filter(({ name }) => name === part);
        if (named.length === 0) throw new Error(`No part of the page is named ${part}: see PARTS`);
        return named.map(({ fileName }) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${fileName}` },
          injectTo: 'head',
        }));
      });
    },
  },
};

/** The page. */
export default defineConfig({
  root: 'web',
  plugins: [react(), tailwind(), partsAhead],
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
