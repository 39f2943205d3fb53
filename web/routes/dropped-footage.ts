/** Footage dropped on the shots page becomes a shot: of its size, rate and length, with it as a plate. */
import { randomId, SHOT_LIMITS } from '@tallow/core/document';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { request } from '../api/client.ts';
import type { ShotSummary } from '../api/types.ts';
import { bringFootage, isFootage } from '../references/footage.ts';
import { say } from '../shot/document.ts';
import type { Coming } from '../parts/coming-bar.tsx';

const within = (value: number, { min, max }: { min: number; max: number }): number =>
  Math.min(max, Math.max(min, value));

/** @returns what is coming in, how to stop it, and what takes a file that was dropped. */
export function useDroppedFootage(productionId: string | undefined) {
  const [coming, setComing] = useState<Coming | null>(null);
  const abort = useRef<AbortController | null>(null);
  const navigate = useNavigate();
  const take = async (file: File): Promise<void> => {
    if (coming || !productionId) return;
    if (!isFootage(file)) {
      say('A video dropped here becomes a shot, an archive its shots. Pictures, SVG and sheets come in at the desk.');
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
