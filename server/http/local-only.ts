import type { NextFunction, Request, Response } from 'express';
import { Problem } from './problem.ts';

const LOCAL = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/** Refuses requests that another site makes through the user's browser: Host and Origin must be this machine's. */
export function localOnly(request: Request, _response: Response, next: NextFunction): void {
  const { host, origin } = request.headers;
  if (!host || !LOCAL.test(host)) {
    next(new Problem(403, 'This server answers only under localhost.'));
    return;
  }
  if (origin !== undefined && origin !== `http://${host}`) {
    next(new Problem(403, 'This server answers only its own pages.'));
    return;
  }
  next();
}
