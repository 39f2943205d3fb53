/** The strip: the whole shot, each element's own drawings in a row, a notch per turn. */
import { shotOf, valueAt } from '@tallow/core/document';
import { placementFrame, shownOn } from '@tallow/core/timing';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { act, goTo } from '../state/actions.ts';
import { useCurrent, type Current } from '../state/current.ts';
import { useDesk } from '../state/desk.ts';
import { boxAround, miniature, useArrivals } from '../state/miniatures.ts';

const NAME_WIDTH = 108;
const ROW = { top: 18, height: 26 };
const HEIGHT = 50;

function draw(context: CanvasRenderingContext2D, now: Current, width: number, pixel: number): void {
  const shot = shotOf(now.doc);
  const perFrame = width / shot.length;
  context.setTransform(pixel, 0, 0, pixel, 0, 0);
  context.clearRect(0, 0, width, HEIGHT);
  context.font = '10px "JetBrains Mono Variable", monospace';
  context.fillStyle = '#a89987';
  const every = [1, 2, 4, 6, 12, 24, 48, 120, 240, 480, 1200, 2400].find((n) => n * perFrame >= 44) ?? 4800;
  for (let f = 0; f < shot.length; f += every) context.fillText(String(f + 1), f * perFrame + 2, 11);
  context.fillStyle = '#231c17';
  context.beginPath();
  context.roundRect(0, ROW.top, width, ROW.height, 5);
  context.fill();
  const { placement, element } = now;
  if (!placement) return;
  const moving = now.layers.filter(({ layer, list }) => layer.visible && layer.role !== 'guide' && list.period !== 1);
  const box = boxAround(
    now.doc,
    moving.flatMap(({ layer }) => Object.values(layer.slots)),
  );
  const size = Math.min(ROW.height - 2, 24);
  let shownKey = '';
  let free = -1;
  for (let f = 0; f < shot.length; f++) {
    const own = placementFrame(placement, element, now.length, f);
    if (own === null) break;
    const x = f * perFrame;
    if (own === 0 && f > placement.start) {
      context.fillStyle = '#f4ecdf';
      context.fillRect(x - 1, ROW.top - 3, 2, 6);
      context.fillRect(x - 1, ROW.top + ROW.height - 3, 2, 6);
      shownKey = '';
    }
    const sheets = [...moving].reverse().flatMap((timed) => {
      const shown = shownOn(timed, own, now.length);
      return shown ? [{ drawingId: shown.drawingId, opacity: valueAt(timed.layer.opacity, own) }] : [];
    });
    const key = sheets.map((s) => s.drawingId).join();
    if (key === shownKey || !box) continue;
    shownKey = key;
    if (x < free || sheets.length === 0) continue;
    const bitmap = miniature(now.doc, sheets, box, Math.round(84 * pixel), Math.round(84 * pixel));
    if (!bitmap) continue;
    context.globalAlpha = f - placement.start < now.length ? 1 : 0.42;
    context.drawImage(bitmap, x + 1, ROW.top + 1, size, size);
    context.globalAlpha = 1;
    free = x + size * 0.8;
  }
}

function Playhead({ now, width }: { now: Current; width: number }) {
  const frame = useDesk((s) => s.frame);
  const { length } = shotOf(now.doc);
  const at = (now.placement?.start ?? 0) + frame;
  if (at >= length) return null;
  return (
    <div
      className="pointer-events-none absolute bottom-0 top-4 rounded-sm bg-wax-100/35"
      style={{ left: (at * width) / length, width: Math.max(3, width / length) }}
    />
  );
}

export function Strip() {
  const now = useCurrent();
  const host = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const [width, setWidth] = useState(0);

  useEffect(() => {
    const element = host.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(() => {
      setWidth(element.clientWidth);
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
    };
  }, []);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (context && now && width > 0) draw(context, now, width, devicePixelRatio);
  }, [now, width, arrivals]);

  if (!now) return null;
  const scrub = (event: PointerEvent): void => {
    const rect = host.current!.getBoundingClientRect();
    const shotFrame = Math.floor(((event.clientX - rect.left) / rect.width) * shotOf(now.doc).length);
    const own = now.placement ? placementFrame(now.placement, now.element, now.length, shotFrame) : null;
    if (own !== null) goTo(own);
  };
  return (
    <div className="flex shrink-0 items-stretch border-t border-soot-700 bg-soot-950 py-2 pr-6" data-testid="strip">
      <div
        className="truncate pl-3 pr-3 text-right text-xs text-wax-300"
        style={{ width: NAME_WIDTH, paddingTop: ROW.top + 3 }}
      >
        {now.element.name}
      </div>
      <div
        ref={host}
        className="relative min-w-0 flex-1 touch-none"
        style={{ height: HEIGHT }}
        role="slider"
        tabIndex={0}
        data-arrows
        aria-label="Shot"
        aria-valuemin={1}
        aria-valuemax={shotOf(now.doc).length}
        aria-valuenow={(now.placement?.start ?? 0) + useDesk.getState().frame + 1}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          scrub(event);
        }}
        onPointerMove={(event) => {
          if (event.buttons & 1) scrub(event);
        }}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
          event.preventDefault();
          act(event.key === 'ArrowLeft' ? 'previousFrame' : 'nextFrame');
        }}
      >
        <canvas
          ref={canvas}
          width={Math.round(width * devicePixelRatio)}
          height={Math.round(HEIGHT * devicePixelRatio)}
          className="absolute inset-0 size-full"
        />
        <Playhead now={now} width={width} />
      </div>
    </div>
  );
}
