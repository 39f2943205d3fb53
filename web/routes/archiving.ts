/** Archives from the page of shots: a shot, a production or everything taken away, and read back. */
import type { Id } from '@tallow/core/document';
import { useRef, useState } from 'react';
import { cameText, followedArchive, handIn } from '../api/archives.ts';
import { request } from '../api/client.ts';
import type { ArchiveInfo } from '../api/types.ts';
import { fetchFile } from '../parts/hand-over.ts';
import { say } from '../shot/document.ts';
import type { Coming } from '../parts/coming-bar.tsx';

/** What can be taken away as an archive; null for everything. */
export type Archived = { readonly scope: 'shot' | 'production'; readonly of: Id } | null;

/** Whether a file calls itself an archive; the server judges by its content. */
export const isArchive = ({ name }: Pick<File, 'name'>): boolean => name.toLowerCase().endsWith('.zip');

/** @returns what is under way, what begins it and what stops it. @param onCame after something came in. */
export function useArchiving(onCame: () => void) {
  const [coming, setComing] = useState<Coming | null>(null);
  const abort = useRef<AbortController | null>(null);
  /** Does one thing at a time, told and stoppable. */
  const run = async (
    name: string,
    begin: (signal: AbortSignal) => Promise<ArchiveInfo>,
  ): Promise<ArchiveInfo | null> => {
    if (coming) {
      say('One archive at a time: wait for the one under way, or stop it.');
      return null;
    }
    const own = new AbortController();
    abort.current = own;
    setComing({ name, done: 0, of: 1 });
    try {
      const { id } = await begin(own.signal);
      return await followedArchive(id, own.signal, (done, of) => {
        setComing({ name, done, of });
      });
    } catch (error) {
      if (!own.signal.aborted) say(error instanceof Error ? error.message : String(error));
      return null;
    } finally {
      setComing(null);
    }
  };
  const write = async (what: Archived, name: string): Promise<void> => {
    const made = await run(`Archive of ${name}`, () =>
      request<ArchiveInfo>('POST', '/archives', what ?? { scope: 'all' }),
    );
    if (made) fetchFile(`/api/archives/${made.id}/file`, made.fileName);
  };
  const read = async (file: File): Promise<void> => {
    const came = await run(file.name, (signal) => handIn(file, signal));
    if (!came) return;
    say(cameText(came));
    onCame();
  };
  return { coming, write, read, stop: () => abort.current?.abort() };
}
