/**
 * Where the page begins. What it is made of is evaluated part by part, in the order the parts lean on one another
 * (`vite.config.mjs` says what goes into each): in one go the page stood still for 400 ms.
 */
import './app.css';
import { setNonce } from 'get-nonce';

// Radix UI puts in style elements by itself: with the nonce of this answer they are the page's own.
setNonce(document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce ?? '');

const PARTS = [
  () => import('react-dom/client'),
  () => import('radix-ui'),
  () => import('@tallow/core/looks'),
  () => import('@tallow/core/document'),
  () => import('@tallow/core/edit'),
  () => import('./saving/open-shot.ts'),
  () => import('./tools/index.ts'),
  () => import('./layers/layers.tsx'),
  () => import('./application.tsx'),
];

for (const part of PARTS) {
  await part();
  // A turn of the event loop, so that what waits meanwhile is answered.
  await new Promise((turn) => setTimeout(turn));
}
