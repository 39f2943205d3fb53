/** Everything that changes over the shot in one place: a curve each, its keys dragged in time and number, and how it goes on. */
import { EASES, jumpsAtSeam, keysIn, shotOf, valueAt, type Key, type ShotDocument } from '@tallow/core/document';
import { changingValues, easeKey, moveKey, takeKey, type Changing } from '@tallow/core/edit';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { Trash2 } from 'lucide-react';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { Small, Words } from '../parts/panel.tsx';
import { goToShotFrame, useShotTime } from '../playback/shot-time.ts';
import { edit, endGesture } from '../shot/document.ts';
import { drag } from '../shot/drag.ts';

const SIZE = { width: 330, height: 54, edge: 7 } as const;
const KEY_COLOUR = '#9fc3a4';
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
/** Of the span of a value, what an arrow up or down moves a key by. */
const STEP = 1 / 40;

/** What tells a key of a value apart from all others. */
const keyName = ({ ownerId, nth }: Changing, { frame }: Key): string => `${ownerId} ${nth} ${frame}`;

function Curve({
  changing,
  length,
  picked,
  onPick,
}: {
  changing: Changing;
  length: number;
  picked: string | null;
  onPick: (key: string | null) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  // The numbers in view stay while a key is dragged, so that it stays under the pen.
  const [held, setHeld] = useState<readonly [number, number] | null>(null);
  const now = useShotTime((s) => s.frame);
  const { value, round, per, unit, start, label, owner } = changing;
  const frames = round ?? length;
  const keys = keysIn(value);
  const numbers = Array.from({ length: frames }, (_, frame) => valueAt(value, frame, round));
  const [least, most] = [Math.min(...numbers), Math.max(...numbers)];
  const room = most > least ? (most - least) * 0.15 : Math.max(1, Math.abs(most)) * 0.5;
  const x = scaleLinear([0, Math.max(1, frames - 1)], [SIZE.edge, SIZE.width - SIZE.edge]);
  const inView: readonly [number, number] = held ?? [least - room, most + room];
  const y = scaleLinear(inView, [SIZE.height - 4, 4]);
  const path = line<number>()
    .x((_, frame) => x(frame))
    .y((number) => y(number))(numbers);
  const shown = (number: number): string => `${Math.round(number * per * 10) / 10} ${unit}`;
  const name = `${owner} ${label}`;
  const begin = (key: Key) => (event: PointerEvent<SVGElement>) => {
    onPick(keyName(changing, key));
    setHeld(inView);
    let last = key.frame;
    drag(event, {
      placeOf: ({ clientX, clientY }) => {
        const box = svg.current!.getBoundingClientRect();
        return { x: clientX - box.left, y: clientY - box.top };
      },
      name: `key of ${label}`,
      change: (doc, at, from) => {
        const frame = Math.round(x.invert(x(key.frame) + at.x - from.x));
        last = Math.min(frames - 1, Math.max(0, frame));
        return moveKey(doc, changing, key, last, y.invert(y(key.value) + at.y - from.y));
      },
      done: () => {
        onPick(keyName(changing, { ...key, frame: last }));
      },
      over: () => {
        setHeld(null);
      },
    });
  };
  const press = (key: Key) => (event: KeyboardEvent<SVGElement>) => {
    const [dx, dy] = ARROWS[event.code] ?? [0, 0];
    const isGone = event.code === 'Delete' || event.code === 'Backspace';
    if (dx === 0 && dy === 0 && !isGone) return;
    event.preventDefault();
    event.stopPropagation();
    if (isGone) {
      edit(`key of ${label} taken away`, (doc) => takeKey(doc, changing, key.frame));
      onPick(null);
      return;
    }
    const frame = Math.min(frames - 1, Math.max(0, key.frame + dx));
    const number = key.value + dy * STEP * (most - least || 1);
    edit(`key of ${label}`, (doc) => moveKey(doc, changing, key, frame, number), `key-${keyName(changing, key)}`);
    endGesture();
    onPick(keyName(changing, { ...key, frame }));
  };
  const here = round === null ? now - start : (((now - start) % round) + round) % round;
  return (
    <svg
      ref={svg}
      width={SIZE.width}
      height={SIZE.height}
      className="block select-none rounded-lg bg-soot-950"
      role="group"
      aria-label={`${name} over ${frames} frames`}
      data-testid="curve"
    >
      {here >= 0 && here < frames ? (
        <rect x={x(here) - 1} y={0} width={2} height={SIZE.height} fill="#f4ecdf" fillOpacity={0.35} />
      ) : null}
      <path d={path ?? ''} fill="none" stroke="#cdbfae" strokeWidth={1.5} />
      {keys.map((key, i) => (
        <g
          key={i}
          role="slider"
          tabIndex={0}
          data-arrows
          data-testid="key"
          aria-label={`${name} on frame ${key.frame + start + 1}`}
          aria-valuenow={Math.round(key.value * per * 100) / 100}
          aria-valuemin={Math.round(changing.least * per)}
          aria-valuemax={Math.round(changing.most * per)}
          aria-valuetext={shown(key.value)}
          className="cursor-move touch-none outline-none [&:focus-visible>.dot]:stroke-flame"
          onPointerDown={begin(key)}
          onKeyDown={press(key)}
          onFocus={() => {
            onPick(keyName(changing, key));
          }}
          onDoubleClick={() => {
            goToShotFrame(key.frame + start);
          }}
        >
          <title>{`frame ${key.frame + start + 1}: ${shown(key.value)} · drag it; double press goes there`}</title>
          <circle cx={x(key.frame)} cy={y(key.value)} r={11} fill="transparent" />
          <circle
            className="dot"
            cx={x(key.frame)}
            cy={y(key.value)}
            r={4}
            fill={KEY_COLOUR}
            stroke={picked === keyName(changing, key) ? '#f4ecdf' : '#14110f'}
            strokeWidth={1.5}
          />
        </g>
      ))}
    </svg>
  );
}

export function ValuesPanel({ doc }: { doc: ShotDocument }) {
  const [picked, setPicked] = useState<string | null>(null);
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
        const key = keysIn(changing.value).find((each) => keyName(changing, each) === picked);
        const jumps = changing.round !== null && jumpsAtSeam(changing.value, changing.round);
        return (
          <section
            key={`${changing.ownerId} ${changing.nth}`}
            aria-label={`${changing.owner} ${changing.label}`}
            className="pb-2"
          >
            <h3 className="truncate py-0.5 text-xs text-wax-300">
              {changing.owner} <span className="text-wax-500">{changing.label}</span>
              {jumps ? <span className="pl-1 text-warn">jumps where the cycle closes</span> : null}
            </h3>
            <Curve changing={changing} length={length} picked={picked} onPick={setPicked} />
            {key ? (
              <div className="flex items-center justify-between text-xs text-wax-500">
                goes on
                <Words
                  label="How it goes on"
                  value={key.ease}
                  words={EASES.map((ease) => ({ value: ease, label: ease }))}
                  onChoose={(ease) => {
                    edit(`${changing.label} ${ease}`, (d) => easeKey(d, changing, key, ease));
                  }}
                />
                <Small
                  name="Take this key away"
                  title="Take this key away"
                  onClick={() => {
                    edit(`key of ${changing.label} taken away`, (d) => takeKey(d, changing, key.frame));
                    setPicked(null);
                  }}
                >
                  <Trash2 size={13} />
                </Small>
              </div>
            ) : null}
          </section>
        );
      })}
    </div>
  );
}
