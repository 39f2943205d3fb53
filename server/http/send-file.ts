/** A finished file handed out. */
import type { Response } from 'express';
import { resolve } from 'node:path';
import { Problem } from './problem.ts';

/** @param what is said to be missing where it is not there. */
export const sendFile = (response: Response, path: string, name: string, what: string): Promise<void> =>
  new Promise((done, failed) => {
    response.download(resolve(path), name, { dotfiles: 'allow' }, (error) => {
      if (!error || response.headersSent) done();
      else failed(Problem.missing(what));
    });
  });
