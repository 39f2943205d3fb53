/** Long work watched from outside: a line for each change, until it is over. */
import type { MessageEvent } from '@nestjs/common';
import { concatMap, distinctUntilChanged, map, takeWhile, timer, type Observable } from 'rxjs';

interface Told {
  readonly state: string;
  readonly done: number;
}

/** ms between two looks. */
const EVERY_MS = 200;

export const watched = (ask: () => Promise<Told>): Observable<MessageEvent> =>
  timer(0, EVERY_MS).pipe(
    concatMap(ask),
    distinctUntilChanged((a, b) => a.state === b.state && a.done === b.done),
    takeWhile(({ state }) => state === 'waiting' || state === 'running', true),
    map((data) => ({ data })),
  );
