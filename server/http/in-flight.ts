/** How much of what is sent may be in memory at a time: each body is read whole before it is looked at. */
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { Problem } from './problem.ts';

/** Bytes of all bodies together. */
const MAX_IN_FLIGHT = 512 * 1024 * 1024;
/** What a body counts for that does not say how long it is: more than any that is read whole. */
const UNTOLD = 72 * 1024 * 1024;

/** Asks whoever comes while others fill the memory to come again. Files that go to disk as they come are not counted. */
export function boundedInFlight(max = MAX_IN_FLIGHT): RequestHandler {
  let inFlight = 0;
  return (request: Request, response: Response, next: NextFunction): void => {
    const said = Number(request.headers['content-length']);
    const bytes = request.headers['transfer-encoding'] === undefined ? said || 0 : UNTOLD;
    if (inFlight > 0 && inFlight + bytes > max) {
      response.set('Retry-After', '1');
      next(new Problem(503, 'Too much is coming in at once. Nothing was changed; try again shortly.'));
      return;
    }
    inFlight += bytes;
    response.once('close', () => (inFlight -= bytes));
    next();
  };
}
