/** How scanned drawings are taken: levels, dust, two marks; seen on the first of them. */
import type { Point } from '@tallow/core/geometry';
import { darknessOf, LEVEL_LIMITS, pencilAt, type Darkness, type Levels } from '@tallow/core/scan';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { startDrag } from '../parts/dragging.ts';
import { Check } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { decodedAtMost } from '../workers/scan-work.ts';
import { DEFAULT_MARKS, DEFAULT_SCAN, useScans, type ScanSettings } from './scans.ts';
import type { Files } from './taking.ts';

/** px of the longer side of what is shown. */
const SHOWN = 640;
const [PAPER, PENCIL] = [244, 28] as const;
const NUDGE = 0.002;

function useFirst(file: File): Darkness | 'broken' | null {
  const [first, setFirst] = useState<Darkness | 'broken' | null>(null);
  useEffect(() => {
    let left = false;
    decodedAtMost(file, SHOWN).then(
      (pixels) => {
        if (!left) setFirst(darknessOf(pixels));
      },
      () => {
        if (!left) setFirst('broken');
      },
    );
    return () => {
      left = true;
    };
  }, [file]);
  return first;
}

function Preview({ first, levels }: { first: Darkness; levels: Levels }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = first;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const pixels = context.createImageData(width, height);
    first.values.forEach((darkness, i) => {
      const value = PAPER + (PENCIL - PAPER) * pencilAt(darkness, levels);
      pixels.data.set([value, value, value, 255], i * 4);
    });
    context.putImageData(pixels, 0, 0);
  }, [first, width, height, levels]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      className="block max-h-[52vh] max-w-full rounded-lg"
      data-testid="scan-preview"
      role="img"
      aria-label="The first scan, its paper taken out"
    />
  );
}

interface MarksProps {
  readonly marks: readonly [Point, Point];
  readonly onMove: (marks: readonly [Point, Point]) => void;
}

/** The two marks over the picture, dragged or moved by the arrow keys. */
function Marks({ marks, onMove }: MarksProps) {
  const host = useRef<HTMLDivElement>(null);
  const moved = (i: number, to: Point): readonly [Point, Point] => {
    const within = (v: number): number => Math.min(1, Math.max(0, v));
    const next = { x: within(to.x), y: within(to.y) };
    return i === 0 ? [next, marks[1]] : [marks[0], next];
  };
  const onKey = (i: number, event: KeyboardEvent): void => {
    const [dx, dy] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key] ?? [];
    if (dx === undefined || dy === undefined) return;
    event.preventDefault();
    const step = NUDGE * (event.shiftKey ? 10 : 1);
    onMove(moved(i, { x: marks[i]!.x + dx * step, y: marks[i]!.y + dy * step }));
  };
  return (
    <div ref={host} className="pointer-events-none absolute inset-0">
      {marks.map(({ x, y }, i) => (
        <button
          key={i}
          type="button"
          aria-label={`${i === 0 ? 'First' : 'Second'} mark`}
          data-tip="Drag it onto a mark that is on every sheet; arrow keys move it a little"
          data-testid="scan-mark"
          className="pointer-events-auto absolute grid size-9 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none place-items-center rounded-full border-2 border-flame-deep text-flame-deep"
          style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
          onKeyDown={(event) => {
            onKey(i, event);
          }}
          onPointerDown={(event) => {
            const box = host.current!.getBoundingClientRect();
            const before = marks;
            startDrag(event, () => ({
              move: ({ clientX, clientY }) => {
                onMove(moved(i, { x: (clientX - box.left) / box.width, y: (clientY - box.top) / box.height }));
              },
              up: () => undefined,
              drop: () => {
                onMove(before);
              },
            }));
          }}
        >
          <svg viewBox="-10 -10 20 20" className="size-5" aria-hidden>
            <path d="M-8 0H8M0-8V8" stroke="currentColor" strokeWidth={1.5} />
          </svg>
        </button>
      ))}
    </div>
  );
}

function Settings({ files, onDone }: { files: Files; onDone: (settings: ScanSettings | null) => void }) {
  const [settings, setSettings] = useState(DEFAULT_SCAN);
  const first = useFirst(files[0]);
  const { levels, dust, hold, marks } = settings;
  const set = (more: Partial<ScanSettings>): void => {
    setSettings({ ...settings, ...more });
  };
  const { apart } = LEVEL_LIMITS;
  const count = files.length === 1 ? 'one drawing' : `${files.length} drawings`;
  return (
    <div
      onKeyDown={(event) => {
        event.stopPropagation();
      }}
    >
      <div className="grid min-h-[320px] place-items-center rounded-lg bg-surround p-2">
        {first === null ? <p className="text-wax-500">Looking at {files[0].name} …</p> : null}
        {first === 'broken' ? <p className="text-warn">{files[0].name} is broken or no picture.</p> : null}
        {first && first !== 'broken' ? (
          <div className="relative">
            <Preview first={first} levels={levels} />
            {marks ? (
              <Marks
                marks={marks}
                onMove={(next) => {
                  set({ marks: next });
                }}
              />
            ) : null}
          </div>
        ) : null}
      </div>
      <div className="mt-4 grid grid-cols-2 gap-x-8">
        <Slider
          label="Paper"
          title="How dark paper may be"
          value={levels.paper * 100}
          min={LEVEL_LIMITS.paper.min * 100}
          max={LEVEL_LIMITS.paper.max * 100}
          unit="%"
          onMove={(value) => {
            const paper = value / 100;
            set({ levels: { paper, dark: Math.max(levels.dark, paper + apart) } });
          }}
        />
        <Slider
          label="Dust"
          title="Specks up to so many pixels are left out"
          value={dust}
          min={0}
          max={100}
          unit="px²"
          onMove={(value) => {
            set({ dust: value });
          }}
        />
        <Slider
          label="Darkest"
          title="From so dark on pencil is as dark as it gets"
          value={levels.dark * 100}
          min={LEVEL_LIMITS.dark.min * 100}
          max={LEVEL_LIMITS.dark.max * 100}
          unit="%"
          onMove={(value) => {
            const dark = value / 100;
            set({ levels: { dark, paper: Math.min(levels.paper, dark - apart) } });
          }}
        />
        <Slider
          label="Each held for"
          value={hold}
          min={1}
          max={12}
          unit="f"
          onMove={(value) => {
            set({ hold: value });
          }}
        />
        <Check
          label="Laid over each other by two marks"
          title="Marks that are on every sheet: each scan is moved, turned and scaled so that they meet those of the first"
          checked={marks !== null}
          onChange={(on) => {
            set({ marks: on ? DEFAULT_MARKS : null });
          }}
        />
      </div>
      <div className="mt-4 flex justify-end gap-2">
        <Button
          onClick={() => {
            onDone(null);
          }}
        >
          Cancel
        </Button>
        <Button
          look="primary"
          whyNot={first === 'broken' ? 'The first picture cannot be read.' : first ? null : 'It is being looked at.'}
          onClick={() => {
            onDone(settings);
          }}
        >
          Bring in {count}
        </Button>
      </div>
    </div>
  );
}

export function ScanDialog() {
  const asking = useScans((s) => s.asking);
  return (
    <Dialog
      title="Scanned drawings"
      wide
      open={asking !== null}
      onOpenChange={(open) => {
        if (!open) asking?.answer(null);
      }}
    >
      {asking ? <Settings files={asking.files} onDone={asking.answer} /> : null}
    </Dialog>
  );
}
