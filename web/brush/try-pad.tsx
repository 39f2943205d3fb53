/** A pad to try the active brush on, by the pen or by the practice pen: the same stroke as on the picture, never kept. */
import { answered } from '@tallow/core/brush';
import { IDENTITY } from '@tallow/core/geometry';
import { wipe, type Surface } from '@tallow/core/render';
import { Play } from 'lucide-react';
import { useCallback, useEffect, useRef, useState, type PointerEvent } from 'react';
import { LiveStroke } from '../picture/live-stroke.ts';
import { StrokeSurfaces } from '../picture/stroke-surfaces.ts';
import { brushOf, makingOf } from '../pen/pen-marks.ts';
import type { PenDoing, PenSample } from '../hand/pen-doing.ts';
import { practise, RECORDED } from '../pen/practice.ts';
import { swatchOf, useCurrent } from '../selection/current.ts';
import { toolState, useToolState } from '../hand/tool-state.ts';
import { makeSurface } from '../workers/surfaces.ts';
import { madeBy } from '../hand/brushes.ts';
import { Select } from '../parts/select.tsx';
import { capturePointer } from '../parts/dragging.ts';

const SIZE = { width: 178, height: 112 };

export function TryPad() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const surfaces = useRef<readonly [Surface, StrokeSurfaces] | null>(null);
  const doing = useRef<PenDoing | null>(null);
  const stop = useRef<() => void>(() => undefined);
  const [which, setWhich] = useState(0);
  const now = useCurrent();
  const tool = useToolState((s) => s.brushName);
  const swatchId = useToolState((s) => s.swatchId);
  const colour = (now && swatchOf(now.doc, swatchId)?.colour) ?? '#f4ecdf';
  const pixel = devicePixelRatio;

  const show = useCallback((live: LiveStroke | null) => {
    const context = canvas.current?.getContext('2d');
    if (!context || !surfaces.current) return;
    const [kept] = surfaces.current;
    context.clearRect(0, 0, kept.width, kept.height);
    context.drawImage(kept.picture as OffscreenCanvas, 0, 0);
    if (!live) return;
    context.globalAlpha = live.setup.laying.opacity;
    context.globalCompositeOperation = live.setup.laying.operation;
    context.drawImage(live.whole.picture as OffscreenCanvas, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
  }, []);

  const land = useCallback(
    (first: PenSample): PenDoing => {
      const size = [SIZE.width * pixel, SIZE.height * pixel] as const;
      surfaces.current ??= [makeSurface(...size), new StrokeSurfaces(...size)];
      const [kept, growing] = surfaces.current;
      const settings = toolState().brushes[tool];
      const rubs = madeBy(tool) === 'rub';
      const brush = brushOf(tool, settings);
      wipe(kept);
      if (rubs) {
        kept.context.fillStyle = colour;
        kept.context.fillRect(12 * pixel, 12 * pixel, kept.width - 24 * pixel, kept.height - 24 * pixel);
      }
      const live = new LiveStroke(
        {
          brush,
          paint: rubs ? '#000000' : colour,
          laying: { opacity: brush.opacity, operation: rubs ? 'destination-out' : 'source-over' },
          matrix: [IDENTITY[0] * pixel, 0, 0, pixel, 0, 0],
          seed: crypto.getRandomValues(new Uint32Array(1))[0]!,
          steadying: settings.steadying,
          making: { ...makingOf(settings), form: 'free', finish: 'drawn' },
        },
        kept,
        growing,
      );
      const move = (samples: readonly PenSample[]): void => {
        for (const { x, y, pressure, altitude, azimuth } of samples)
          live.add(x, y, answered(settings.response, pressure), altitude, azimuth);
        live.draw();
        show(live);
      };
      move([first]);
      const box = { left: 0, top: 0, right: kept.width, bottom: kept.height };
      return {
        move,
        up: () => {
          live.layOn(kept, box);
          show(null);
          return true;
        },
        drop: () => {
          show(null);
        },
      };
    },
    [colour, pixel, show, tool],
  );

  const replay = useCallback(
    (index: number) => {
      stop.current();
      stop.current = practise(
        RECORDED[index]!,
        { x: 14, y: 10, width: SIZE.width - 28, height: SIZE.height - 20 },
        land,
      );
    },
    [land],
  );
  useEffect(
    () => () => {
      stop.current();
    },
    [],
  );

  const sampleOf = (event: PointerEvent): PenSample => {
    const box = canvas.current!.getBoundingClientRect();
    return {
      x: event.clientX - box.left,
      y: event.clientY - box.top,
      pressure: event.pointerType === 'pen' ? event.pressure : 1,
      altitude: event.nativeEvent.altitudeAngle,
      azimuth: event.nativeEvent.azimuthAngle,
      shift: false,
      alt: false,
    };
  };
  const up = (): void => {
    doing.current?.up();
    doing.current = null;
  };
  return (
    <figure className="min-w-0 flex-1">
      <canvas
        ref={canvas}
        data-testid="try-pad"
        aria-label="Pad for trying the brush"
        width={SIZE.width * pixel}
        height={SIZE.height * pixel}
        style={SIZE}
        className="cursor-crosshair touch-none rounded-lg bg-surround"
        onPointerDown={(event) => {
          stop.current();
          capturePointer(event.currentTarget, event);
          doing.current = land(sampleOf(event));
        }}
        onPointerMove={(event) => {
          doing.current?.move([sampleOf(event)]);
        }}
        onPointerUp={up}
        onPointerCancel={up}
      />
      <figcaption className="mt-0.5 flex items-center gap-1 text-[11px] text-wax-500">
        <button
          type="button"
          aria-label="Let the practice pen draw"
          data-tip={`Practice pen: ${RECORDED[which]!.does}`}
          className="flex h-6 items-center gap-1 rounded bg-soot-800 px-1.5 text-wax-300 hover:text-wax-100"
          onClick={() => {
            replay(which);
          }}
        >
          <Play size={11} /> Practice pen
        </button>
        <Select
          label="What the practice pen draws"
          className="h-6 min-w-0 flex-1 rounded text-wax-300"
          value={String(which)}
          options={RECORDED.map(({ name }, i) => ({ value: String(i), label: name }))}
          onChoose={(chosen) => {
            setWhich(Number(chosen));
            replay(Number(chosen));
          }}
        />
      </figcaption>
    </figure>
  );
}
