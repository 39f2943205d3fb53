/** Everything that changes over the shot in one place: a curve each; which of them lie in the strip beside the drawings. */
import { jumpsAtSeam, shotOf, valueAt, type ShotDocument } from '@tallow/core/document';
import { changingValues, type ChangingValue } from '@tallow/core/edit';
import { modulo } from '@tallow/core/geometry';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import { useShotTime } from '../playback/shot-time.ts';
import { colourInStrip, toggleInStrip, useInStrip } from './strip-values.ts';
import { KEY_COLOUR, SelectedKey, ValueCurve, valueName } from './value-curve.tsx';

const SIZE = { width: 330, height: 54, edge: 7 } as const;

interface HereProps {
  readonly changing: ChangingValue;
  readonly frames: number;
  /** Where a frame of its own time lies, px. */
  readonly x: (frame: number) => number;
}

/** Where the playhead is; by itself, as all curves stay as they are while it goes along. */
function Here({ changing: { round, start }, frames, x }: HereProps) {
  const now = useShotTime((s) => s.frame);
  const here = round === null ? now - start : modulo(now - start, round);
  if (here < 0 || here >= frames) return null;
  return <rect x={x(here) - 1} y={0} width={2} height={SIZE.height} fill="#f4ecdf" fillOpacity={0.35} />;
}

function Curve({
  changing,
  length,
  selected,
  onPick,
}: {
  changing: ChangingValue;
  length: number;
  selected: string | null;
  onPick: (key: string | null) => void;
}) {
  const { value, round, label, owner } = changing;
  const frames = round ?? length;
  const x = scaleLinear([0, Math.max(1, frames - 1)], [SIZE.edge, SIZE.width - SIZE.edge]);
  return (
    <svg
      width={SIZE.width}
      height={SIZE.height}
      className="block select-none rounded-lg bg-soot-950"
      role="group"
      aria-label={`${owner} ${label} over ${frames} frames`}
      data-testid="curve"
    >
      <Here changing={changing} frames={frames} x={x} />
      <ValueCurve
        changing={changing}
        numbers={Array.from({ length: frames }, (_, frame) => valueAt(value, frame, round))}
        from={0}
        last={frames - 1}
        time={{ x, frame: (at) => x.invert(at) }}
        height={SIZE.height}
        colour={KEY_COLOUR}
        selected={selected}
        onPick={onPick}
      />
    </svg>
  );
}

export function ShotValuesPanel({ doc }: { doc: ShotDocument }) {
  const [selected, setSelected] = useState<string | null>(null);
  const inStrip = useInStrip((s) => s.names);
  const all = changingValues(doc);
  const { length } = shotOf(doc);
  if (all.length === 0)
    return (
      <p className="py-2 text-[13px] text-wax-500">
        Nothing changes over time yet. The dot before a number sets it on a frame; its curve is found here then.
      </p>
    );
  return (
    <div data-testid="values" className="pb-3">
      {all.map((changing) => {
        const name = valueName(changing);
        const jumps = changing.round !== null && jumpsAtSeam(changing.value, changing.round);
        const isInStrip = inStrip.includes(name);
        return (
          <section key={name} aria-label={`${changing.owner} ${changing.label}`} className="pb-2">
            <div className="flex items-center gap-1">
              <h3 className="min-w-0 flex-1 truncate py-0.5 text-xs text-wax-300">
                {changing.owner} <span className="text-wax-500">{changing.label}</span>
                {jumps ? <span className="pl-1 text-warn">jumps where the cycle closes</span> : null}
              </h3>
              <button
                type="button"
                aria-pressed={isInStrip}
                aria-label={`${changing.owner} ${changing.label} in strip`}
                data-tip="Beside the drawings in the strip, over the others that are"
                className={`moves flex h-7 items-center gap-1.5 rounded-md px-1.5 text-xs hover:bg-soot-800 hover:text-wax-100 ${isInStrip ? 'text-wax-100' : 'text-wax-500'}`}
                onClick={() => {
                  toggleInStrip(name);
                }}
              >
                <span
                  className="size-2 rounded-full border border-wax-500"
                  style={isInStrip ? { background: colourInStrip(name), borderColor: colourInStrip(name) } : undefined}
                />
                in strip
              </button>
            </div>
            <Curve changing={changing} length={length} selected={selected} onPick={setSelected} />
            <SelectedKey changing={changing} selected={selected} onPick={setSelected} />
          </section>
        );
      })}
    </div>
  );
}
