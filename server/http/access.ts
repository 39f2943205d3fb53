/** Access by a token, for machines that others have accounts on: they too can reach a port on loopback. */
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { createHash, timingSafeEqual } from 'node:crypto';
import { Problem } from './problem.ts';

/** Whoever asks whether the server is well is answered without a token: nothing else is in the answer. */
const OPEN = '/api/health';
/** The longest that browsers keep a cookie. RFC 6265bis, section 5.5. */
const KEPT_MS = 400 * 24 * 60 * 60 * 1000;

const hashOf = (text: string): Buffer => createHash('sha256').update(text).digest();
const isSame = (a: string, b: string): boolean => timingSafeEqual(hashOf(a), hashOf(b));

/** Browsers keep one cookie of a name for all ports of a machine: each home has its own. */
export const cookieName = (home: string): string => `tallow_${hashOf(home).toString('hex').slice(0, 12)}`;

/** The values of a cookie; a page of another port may have set one of the same name for a path. */
const cookiesOf = (header: string | undefined, name: string): string[] =>
  (header ?? '').split(';').flatMap((each) => {
    const at = each.indexOf('=');
    return each.slice(0, at).trim() === name ? [each.slice(at + 1).trim()] : [];
  });

/** The same address without the token, of this server whatever it begins with. */
function cleanAddress(url: string): string {
  const { pathname, searchParams } = new URL(url.replace(/^\/+/, '/'), 'http://localhost');
  searchParams.delete('token');
  const query = searchParams.toString();
  return query ? `${pathname}?${query}` : pathname;
}

/**
 * Lets in who has the token: in the address that the start command prints, once, and then in a cookie that no script
 * reads and no other site sends. @param home names the cookie.
 */
export function tokenOnly(token: string, home: string): RequestHandler {
  const name = cookieName(home);
  return (request: Request, response: Response, next: NextFunction): void => {
    const given = new URLSearchParams(request.url.split('?')[1] ?? '').get('token');
    if (request.method === 'GET' && given !== null && isSame(given, token)) {
      response.cookie(name, token, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: KEPT_MS });
      response.set('Cache-Control', 'no-store').redirect(303, cleanAddress(request.url));
    } else if (request.path === OPEN || cookiesOf(request.headers.cookie, name).some((each) => isSame(each, token)))
      next();
    else if (request.path.startsWith('/api'))
      next(new Problem(401, 'Open the address with a token that Tallow printed when it started.'));
    else
      response
        .status(401)
        .set('Cache-Control', 'no-store')
        .type('text/plain')
        .send('Open the address with a token that Tallow printed when it started.\n');
  };
}
