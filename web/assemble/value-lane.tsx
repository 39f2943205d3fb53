/** Values over time in the strip: over each other, each by its own measure, beside the drawings they go with. */
import { shotOf, valueAt, type ShotDocument } from '@tallow/core/document';
import { changingValues } from '@tallow/core/edit';
import { modulo } from '@tallow/core/geometry';
import { X } from 'lucide-react';
import { useState } from 'react';
import type { InView } from './lane-canvas.tsx';
import { LANE_NAME } from './lane-row.tsx';
import { colourInStrip, toggleInStrip, useInStrip } from './strip-values.ts';
import { SelectedKey, ValueCurve, valueName } from './value-curve.tsx';

const HEIGHT = 58;

export function ValueLane({ doc, view, width }: { doc: ShotDocument; view: InView; width: number }) {
  const names = useInStrip((s) => s.names);
  const [selected, setSelected] = useState<string | null>(null);
  // The one over all others: where keys lie on each other it is the one under the pen.
  const [front, setFront] = useState<string | null>(null);
  if (names.length === 0) return null;
  const { length } = shotOf(doc);
  const shown = changingValues(doc).filter((changing) => names.includes(valueName(changing)));
  if (shown.length === 0) return null;
  const first = Math.max(0, Math.floor(view.from) - 1);
  const count = Math.max(1, Math.min(length, Math.ceil(view.from + width / view.perFrame) + 1) - first);
  return (
    <div className="mt-1 flex shrink-0" data-testid="value-lane">
      <ul className="shrink-0 space-y-0.5 overflow-hidden pl-2 pt-0.5" style={{ width: LANE_NAME, maxHeight: HEIGHT }}>
        {shown.map((changing) => (
          <li key={valueName(changing)} className="flex h-4 items-center gap-1 text-[11px] text-wax-300">
            <span className="size-2 shrink-0 rounded-full" style={{ background: colourInStrip(valueName(changing)) }} />
            <button
              type="button"
              aria-pressed={front === valueName(changing)}
              className={`moves min-w-0 flex-1 truncate text-left hover:text-wax-100 ${front === valueName(changing) ? 'text-wax-100' : ''}`}
              data-tip={`${changing.owner} ${changing.label} · over the others`}
              onClick={() => {
                setFront(valueName(changing));
              }}
            >
              {changing.owner} {changing.label}
            </button>
            <button
              type="button"
              aria-label={`${changing.owner} ${changing.label}: out of the strip`}
              data-tip="Out of the strip"
              className="moves grid size-4 shrink-0 place-items-center rounded text-wax-500 hover:text-wax-100"
              onClick={() => {
                toggleInStrip(valueName(changing));
              }}
            >
              <X size={11} />
            </button>
          </li>
        ))}
      </ul>
      <div className="relative min-w-0 flex-1 overflow-hidden rounded-md bg-soot-900/60">
        <svg width={width} height={HEIGHT} className="block select-none" role="group" aria-label="Values in the strip">
          {shown
            .toSorted((a, b) => Number(valueName(a) === front) - Number(valueName(b) === front))
            .map((changing) => {
              const { value, start, round } = changing;
              return (
                <ValueCurve
                  key={valueName(changing)}
                  changing={changing}
                  numbers={Array.from({ length: count }, (_, i) => {
                    const frame = first + i - start;
                    return valueAt(value, round === null ? frame : modulo(frame, round), round);
                  })}
                  from={first - start}
                  last={(round ?? length) - 1}
                  time={{
                    x: (frame) => (frame + start + 0.5 - view.from) * view.perFrame,
                    frame: (x) => x / view.perFrame + view.from - start - 0.5,
                  }}
                  height={HEIGHT}
                  colour={colourInStrip(valueName(changing))}
                  selected={selected}
                  onPick={setSelected}
                />
              );
            })}
        </svg>
        <div className="absolute right-1 top-0 w-72 rounded bg-soot-950/90 px-2 empty:hidden">
          {shown.map((changing) => (
            <SelectedKey key={valueName(changing)} changing={changing} selected={selected} onPick={setSelected} />
          ))}
        </div>
      </div>
    </div>
  );
}
