/** What every answer says about itself: what its page may do, and that answers of the interface are not kept. */
import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { randomBytes } from 'node:crypto';
import type { ServerResponse } from 'node:http';

/** Stands in the built page where each answer puts its own nonce (`vite.config.mjs`). */
export const NONCE_PLACE = 'tallow-nonce';

interface WithNonce extends ServerResponse {
  nonce?: string;
}

/** The nonce of this answer: style elements that carry it are the page's own. */
export const nonceOf = (response: WithNonce): string => (response.nonce ??= randomBytes(16).toString('base64'));

/** The page that describes the interface comes with styles of its own inside. */
const isDescription = (url = ''): boolean => url.startsWith('/api/docs');

export const pageRules = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      styleSrc: [
        "'self'",
        (request, response) => (isDescription(request.url) ? "'unsafe-inline'" : `'nonce-${nonceOf(response)}'`),
      ],
      // Drawings that are put aside are read back from blobs.
      connectSrc: ["'self'", 'blob:'],
      imgSrc: ["'self'", 'data:', 'blob:'],
      mediaSrc: ["'self'", 'blob:'],
      workerSrc: ["'self'"],
      objectSrc: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
      baseUri: ["'self'"],
    },
  },
  strictTransportSecurity: false,
  // With the opener policy, which is on by itself: the page's threads may share memory.
  crossOriginEmbedderPolicy: { policy: 'require-corp' },
});

/** Answers of the interface are the work itself, and change: what may be kept after all says so itself. */
export function notKept(request: Request, response: Response, next: NextFunction): void {
  if (request.path.startsWith('/api')) response.set('Cache-Control', 'no-store');
  next();
}
