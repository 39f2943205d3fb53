/** What a request may look like before anything is made of it. Everything here is reported as a problem that names the field. */
import type { NextFunction, Request, Response } from 'express';
import { Problem } from './problem.ts';
import { shortField } from './short-field.ts';

/** Deeper than any body of Tallow goes, and far from where a stack ends. */
const DEEPEST = 100;

/** Tells whether lists and objects lie deeper in one another than may be; without recursion, which is what depth would break. */
function isTooDeep(body: unknown): boolean {
  let level: unknown[] = [body];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) return true;
    const next: unknown[] = [];
    for (const value of level) {
      if (typeof value !== 'object' || value === null) continue;
      for (const each of Array.isArray(value) ? (value as unknown[]) : Object.values(value))
        if (typeof each === 'object' && each !== null) next.push(each);
    }
    level = next;
  }
  return false;
}

/** Refuses bodies that nest without end, naming the field they do it in. */
export function shallowBody({ body }: Request<object, unknown, unknown>, _: Response, next: NextFunction): void {
  if (Buffer.isBuffer(body) || !isTooDeep(body)) {
    next();
    return;
  }
  const field = Array.isArray(body)
    ? 'body'
    : (Object.entries(body as object).find(([, value]) => isTooDeep(value))?.[0] ?? 'body');
  next(Problem.refused(shortField(field), `must not nest more than ${DEEPEST} deep.`));
}

/** Refuses a query that gives one name twice: each is read as one text. */
export function singleQuery({ url }: Request, _: Response, next: NextFunction): void {
  const names = [...new URLSearchParams(url.split('?')[1] ?? '').keys()];
  const twice = names.find((name, i) => names.indexOf(name) < i);
  next(twice === undefined ? undefined : Problem.refused(shortField(twice), 'must be given once.'));
}

/** Says in words what the reader of bodies refused; what was sent is not said back. */
export function unreadBody(error: unknown, _request: Request, _: Response, next: NextFunction): void {
  const { type, status } = (error ?? {}) as { type?: string; status?: number };
  if (error instanceof Problem || !type || !status || status >= 500) next(error);
  else next(new Problem(status, `${WORDS[type] ?? 'The request cannot be read.'} Nothing was changed.`));
}

/** By the types that body-parser gives its errors. */
const WORDS: Readonly<Record<string, string>> = {
  'entity.too.large': 'The request is larger than this address takes.',
  'entity.parse.failed': 'The request is not JSON.',
  'encoding.unsupported': 'The request is packed in a way that is not read here.',
  'charset.unsupported': 'The request must be in UTF-8.',
  'request.aborted': 'The request broke off.',
  'request.size.invalid': 'The request is not as long as it says.',
};
