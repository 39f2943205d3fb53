/** Where a starter stands, and its picture while its settings move. */
import { findAll, find, shotOf, type Starter } from '@tallow/core/document';
import { apply, multiply, type Matrix } from '@tallow/core/geometry';
import { useEffect, useRef } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useViewed } from '../view/viewed.ts';
import { dropPreview, layNow, preview, workOf } from './laying.ts';
import { plan, selectPlanned, usePlan } from './plan.ts';
import { startersOf } from '@tallow/core/edit';
import { compute } from '../workers/compute-client.ts';
import { ROSE, type Sight } from './sight.ts';
import { startDrag } from '../parts/dragging.ts';

/** Previews are drawn at half the picture's size, or less where it has more pixels. */
const SHARE = 0.5;

/** Colours of a starter's paints as the palette has them. */
function coloursOf(now: Current, starter: Starter): Record<string, string> {
  const palette = findAll(now.doc, 'swatch', shotOf(now.doc).swatches);
  return Object.fromEntries(
    Object.entries(starter.paints).flatMap(([key, id]) => {
      const swatch = palette.find((s) => s.id === id);
      return swatch ? [[key, swatch.colour]] : [];
    }),
  );
}

/** The drawing on this frame with the settings that are moving; one is worked out at a time, always the latest. */
export function StarterPreview({ now, matrix }: { now: Current; matrix: Matrix }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const moving = usePlan((s) => s.moving);
  const frame = useSelection((s) => s.frame);
  const area = useViewed((s) => s.area);
  const latest = useRef<(() => Promise<void>) | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    const element = canvas.current;
    const work = moving && workOf(moving);
    if (!element || !work) return;
    const size = {
      width: Math.max(1, Math.round(area.width * SHARE)),
      height: Math.max(1, Math.round(area.height * SHARE)),
    };
    latest.current = async () => {
      const bitmap = await compute().preview(
        work,
        frame,
        coloursOf(now, work.starter),
        size,
        multiply([SHARE, 0, 0, SHARE, 0, 0], matrix),
      );
      element.width = size.width;
      element.height = size.height;
      element.getContext('2d')?.drawImage(bitmap, 0, 0);
      element.dataset['previews'] = String(Number(element.dataset['previews'] ?? 0) + 1);
      bitmap.close();
    };
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      while (latest.current) {
        const run = latest.current;
        latest.current = null;
        await run();
      }
      busy.current = false;
    })();
  }, [moving, frame, area, now, matrix]);
  if (!moving) return null;
  return <canvas ref={canvas} data-testid="preview" className="pointer-events-none absolute inset-0 size-full" />;
}

/** Marks of the starters that stand on the element; the selected one can be moved by its mark. */
export function StarterMark({ now, sight }: { now: Current; sight: Sight }) {
  const hand = usePlan((s) => s.hand);
  const moving = usePlan((s) => s.moving);
  return startersOf(now.doc, now.element.id).map((laid) => {
    const starter = moving?.id === laid.id ? moving : laid;
    const at = apply(sight.matrix, starter);
    const chosen = hand?.kind === 'starter' && hand.id === starter.id;
    const begin = (event: React.PointerEvent): void => {
      startDrag(event, () => {
        selectPlanned({ kind: 'starter', id: starter.id });
        const from = sight.placeOf(event);
        const was = find(now.doc, 'starter', starter.id) ?? starter;
        let moved = false;
        return {
          move: (each) => {
            const p = sight.placeOf(each);
            moved = true;
            preview({ ...was, x: was.x + p.x - from.x, y: was.y + p.y - from.y });
          },
          up: () => {
            const { moving: put } = plan();
            if (moved && put) void layNow(put, 'move starter');
          },
          drop: dropPreview,
        };
      });
    };
    return (
      <g
        key={starter.id}
        transform={`translate(${at.x} ${at.y})`}
        pointerEvents={sight.live ? 'all' : 'none'}
        className="cursor-move"
        data-starter={starter.effect}
        onPointerDown={begin}
      >
        <title>Where it stands: drag to move it</title>
        <circle r={14} fill="transparent" />
        <path
          d="M0 -8L8 0L0 8L-8 0Z"
          fill={chosen ? '#ffc25c' : '#1a1613'}
          stroke={chosen ? '#33291f' : ROSE}
          strokeWidth={1.6}
        />
      </g>
    );
  });
}
