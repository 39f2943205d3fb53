/** Files handed out: to be kept, or to be shown. */
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

/** Shows a loop that never changes under its address. @param what is said to be missing where it is not there. */
export const showLoop = (response: Response, path: string, what: string): Promise<void> =>
  new Promise((done, failed) => {
    const headers = { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=31536000, immutable' };
    response.sendFile(resolve(path), { dotfiles: 'allow', headers }, (error) => {
      if (!error || response.headersSent) done();
      else failed(Problem.missing(what));
    });
  });
