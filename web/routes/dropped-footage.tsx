/** Footage dropped on the shots page becomes a shot: of its size, rate and length, with it as a plate. */
import { randomId, SHOT_LIMITS } from '@tallow/core/document';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { request } from '../api/client.ts';
import type { ShotSummary } from '../api/types.ts';
import { bringFootage, isFootage } from '../references/footage.ts';
import { say } from '../shot/document.ts';

interface Coming {
  readonly name: string;
  readonly done: number;
  readonly of: number;
}

const within = (value: number, { least, most }: { least: number; most: number }): number =>
  Math.min(most, Math.max(least, value));

/** @returns what is coming in, how to stop it, and what takes a file that was dropped. */
export function useDroppedFootage(productionId: string | undefined) {
  const [coming, setComing] = useState<Coming | null>(null);
  const abort = useRef<AbortController | null>(null);
  const navigate = useNavigate();
  const take = async (file: File): Promise<void> => {
    if (coming || !productionId) return;
    if (!isFootage(file)) {
      say('A video dropped here becomes a shot: WebM, MP4, MOV and OGV can come in. Pictures come in at the desk.');
      return;
    }
    const own = new AbortController();
    abort.current = own;
    setComing({ name: file.name, done: 0, of: 1 });
    try {
      const footage = await bringFootage(file, null, own.signal, (done, of) => {
        setComing({ name: file.name, done, of });
      });
      const { width, height, rate, assets } = footage;
      const name = file.name.replace(/\.\w+$/, '').slice(0, 80) || 'Footage';
      const shot = await request<ShotSummary>('POST', '/shots', {
        id: randomId(),
        productionId,
        name,
        width: within(width, SHOT_LIMITS.size),
        height: within(height, SHOT_LIMITS.size),
        rate: rate ?? 24,
        length: within(assets.length, SHOT_LIMITS.length),
        background: '#000000',
      });
      void navigate(`/shots/${shot.id}/assemble`, { state: { footage: { name: file.name, assets, width, height } } });
    } catch (error) {
      if (!own.signal.aborted) say(error instanceof Error ? error.message : String(error));
    } finally {
      setComing(null);
    }
  };
  return { coming, take, stop: () => abort.current?.abort() };
}

export function FootageComing({ coming, onStop }: { coming: Coming; onStop: () => void }) {
  return (
    <div
      role="status"
      className="fixed bottom-6 left-1/2 z-20 flex w-96 -translate-x-1/2 items-center gap-3 rounded-[10px] border border-soot-700 bg-soot-900 px-4 py-3 text-[13px]"
    >
      <span className="min-w-0 flex-1 truncate">{coming.name}</span>
      <progress className="h-1.5 w-32 accent-flame" max={coming.of} value={coming.done} />
      <button type="button" className="text-flame underline" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
