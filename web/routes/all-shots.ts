/** Productions and shots as the server has them, with ways to change them and see the change. */
import { useCallback, useEffect, useState } from 'react';
import { request } from '../api/client.ts';
import type { Production, ShotSummary } from '../api/types.ts';
import { say } from '../shot/document.ts';

const LOOK_MS = 4000;

interface AllShots {
  readonly productions: readonly Production[];
  readonly shots: readonly ShotSummary[];
}

/** Productions and shots, with a way to change them and see the change. */
export function useAllShots() {
  const [all, setAll] = useState<AllShots | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const reload = useCallback(async () => {
    try {
      const [productions, shots] = await Promise.all([
        request<Production[]>('GET', '/productions'),
        request<ShotSummary[]>('GET', '/shots'),
      ]);
      setAll({ productions, shots });
      setTrouble(null);
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  }, []);
  useEffect(() => {
    void reload();
  }, [reload]);
  useEffect(() => {
    if (!trouble) return undefined;
    const timer = setTimeout(() => void reload(), 1500);
    return () => {
      clearTimeout(timer);
    };
  }, [trouble, reload]);
  // Loops are made a moment after a shot has changed; they are looked for until they are there.
  const awaits = all?.shots.some((shot) => shot.loop === null || shot.loop.revision !== shot.revision) ?? false;
  useEffect(() => {
    if (!awaits || trouble) return undefined;
    const timer = setInterval(() => void reload(), LOOK_MS);
    return () => {
      clearInterval(timer);
    };
  }, [awaits, trouble, reload]);
  const change = useCallback(
    async (work: Promise<unknown>) => {
      try {
        await work;
      } catch (error) {
        say(error instanceof Error ? error.message : String(error));
      }
      await reload();
    },
    [reload],
  );
  return { all, trouble, change };
}

export type ShotsChange = (work: Promise<unknown>) => Promise<void>;

/** Deletes something and offers to bring it back. */
export function removeWithUndo(change: ShotsChange, path: string, name: string): void {
  void change(request('DELETE', path)).then(() => {
    say(`“${name}” was deleted.`, { label: 'Undo', run: () => void change(request('POST', `${path}/restore`)) });
  });
}
