/** A small picture of what a preset lays, drawn by the engine itself. */
import type { Effect } from '@tallow/core/document';
import type { Preset } from '@tallow/core/starters';
import { useEffect, useRef } from 'react';
import { compute } from '../workers/compute-client.ts';

const known = new Map<string, Promise<ImageBitmap>>();

function pictureOf(effect: Effect, preset: Preset, width: number, height: number): Promise<ImageBitmap> {
  const key = JSON.stringify([effect, preset, width, height]);
  const found = known.get(key) ?? compute().picture(effect, preset, width, height);
  known.set(key, found);
  return found;
}

export function StarterPicture({
  effect,
  preset,
  width,
  height,
}: {
  effect: Effect;
  preset: Preset;
  width: number;
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [w, h] = [Math.round(width * devicePixelRatio), Math.round(height * devicePixelRatio)];
  useEffect(() => {
    let left = false;
    void pictureOf(effect, preset, w, h).then((bitmap) => {
      const context = canvas.current?.getContext('2d');
      if (left || !context) return;
      context.clearRect(0, 0, w, h);
      context.drawImage(bitmap, 0, 0);
    });
    return () => {
      left = true;
    };
  }, [effect, preset, w, h]);
  return <canvas ref={canvas} width={w} height={h} style={{ width, height }} aria-hidden />;
}
