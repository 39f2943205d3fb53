/** A value over time as a curve with its keys, which are dragged in time and number: by itself or over others. */
import { EASES, keysIn, type Key } from '@tallow/core/document';
import { easeKey, moveKey, takeKey, type ChangingValue } from '@tallow/core/edit';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { Trash2 } from 'lucide-react';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { Words } from '../parts/choice.tsx';
import { Small } from '../parts/panel.tsx';
import { goToShotFrame } from '../playback/shot-time.ts';
import { edit, endGesture } from '../shot/document.ts';
import { drag } from '../shot/drag.ts';

export const KEY_COLOUR = '#9fc3a4';
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
/** Of the span of a value, what an arrow up or down moves a key by. */
const STEP = 1 / 40;

/** What tells a value apart from all others, and a key of it. */
export const valueName = ({ ownerId, nth }: ChangingValue): string => `${ownerId} ${nth}`;
const keyName = (changing: ChangingValue, { frame }: Key): string => `${valueName(changing)} ${frame}`;

/** How values lie in time: px of a frame of the value's own time, and back. */
interface TimeScale {
  readonly x: (frame: number) => number;
  readonly frame: (x: number) => number;
}

interface ValueCurveProps {
  changing: ChangingValue;
  /** The numbers that are drawn, from a frame of the value's own time on. */
  numbers: readonly number[];
  from: number;
  /** The last frame a key may lie on. */
  last: number;
  time: TimeScale;
  /** px from top to bottom. */
  height: number;
  colour: string;
  selected: string | null;
  onPick: (key: string | null) => void;
}

export function ValueCurve(props: ValueCurveProps) {
  const { changing, numbers, from, last, time, height, colour, selected, onPick } = props;
  // The numbers in view stay while a key is dragged, so that it stays under the pen.
  const [held, setHeld] = useState<readonly [number, number] | null>(null);
  const { value, per, unit, start, label, owner } = changing;
  const [min, max] = [Math.min(...numbers), Math.max(...numbers)];
  const room = max > min ? (max - min) * 0.15 : Math.max(1, Math.abs(max)) * 0.5;
  const inView: readonly [number, number] = held ?? [min - room, max + room];
  const y = scaleLinear(inView, [height - 4, 4]);
  const path = line<number>()
    .x((_, i) => time.x(from + i))
    .y((number) => y(number))(numbers);
  const shown = (number: number): string => `${Math.round(number * per * 10) / 10} ${unit}`;
  const name = `${owner} ${label}`;
  const begin = (key: Key) => (event: PointerEvent<SVGElement>) => {
    onPick(keyName(changing, key));
    setHeld(inView);
    let to = key.frame;
    drag(event, {
      placeOf: ({ clientX, clientY }) => ({ x: clientX, y: clientY }),
      name: `key of ${label}`,
      change: (doc, at, began) => {
        to = Math.min(last, Math.max(0, Math.round(time.frame(time.x(key.frame) + at.x - began.x))));
        return moveKey(doc, changing, key, to, y.invert(y(key.value) + at.y - began.y));
      },
      done: () => {
        onPick(keyName(changing, { ...key, frame: to }));
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
    const frame = Math.min(last, Math.max(0, key.frame + dx));
    const number = key.value + dy * STEP * (max - min || 1);
    edit(`key of ${label}`, (doc) => moveKey(doc, changing, key, frame, number), `key-${keyName(changing, key)}`);
    endGesture();
    onPick(keyName(changing, { ...key, frame }));
  };
  return (
    <g>
      <path d={path ?? ''} fill="none" stroke={colour} strokeWidth={1.5} />
      {keysIn(value).map((key, i) => (
        <g
          key={i}
          role="slider"
          tabIndex={0}
          data-arrows
          data-testid="key"
          aria-label={`${name} on frame ${key.frame + start + 1}`}
          aria-valuenow={Math.round(key.value * per * 100) / 100}
          aria-valuemin={Math.round(changing.min * per)}
          aria-valuemax={Math.round(changing.max * per)}
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
          <title>{`${name}, frame ${key.frame + start + 1}: ${shown(key.value)} · drag it; double press goes there`}</title>
          <circle cx={time.x(key.frame)} cy={y(key.value)} r={11} fill="transparent" />
          <circle
            className="dot"
            cx={time.x(key.frame)}
            cy={y(key.value)}
            r={4}
            fill={colour}
            stroke={selected === keyName(changing, key) ? '#f4ecdf' : '#14110f'}
            strokeWidth={1.5}
          />
        </g>
      ))}
    </g>
  );
}

/** How a value goes on from the key that is picked, and taking that away; nothing where none of it is. */
export function SelectedKey({
  changing,
  selected,
  onPick,
}: {
  changing: ChangingValue;
  selected: string | null;
  onPick: (key: string | null) => void;
}) {
  const key = keysIn(changing.value).find((each) => keyName(changing, each) === selected);
  if (!key) return null;
  return (
    <div className="flex items-center justify-between text-xs text-wax-500">
      goes on
      <Words
        label="How it goes on"
        value={key.ease}
        choices={EASES.map((ease) => ({ value: ease, label: ease }))}
        onChoose={(ease) => {
          edit(`${changing.label} ${ease}`, (d) => easeKey(d, changing, key, ease));
        }}
      />
      <Small
        name="Take this key away"
        title="Take this key away"
        onClick={() => {
          edit(`key of ${changing.label} taken away`, (d) => takeKey(d, changing, key.frame));
          onPick(null);
        }}
      >
        <Trash2 size={13} />
      </Small>
    </div>
  );
}
