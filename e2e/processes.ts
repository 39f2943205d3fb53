/** The processes of this machine, as /proc tells them. */
import { readdirSync, readFileSync } from 'node:fs';

export interface Running {
  readonly id: number;
  readonly parent: number;
  readonly words: string;
}

export function running(): Running[] {
  return readdirSync('/proc').flatMap((name): Running[] => {
    try {
      const parent = Number(
        readFileSync(`/proc/${name}/stat`, 'utf8')
          .replace(/^.*\) /s, '')
          .split(' ')[1],
      );
      return [{ id: Number(name), parent, words: readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ') }];
    } catch {
      return [];
    }
  });
}
