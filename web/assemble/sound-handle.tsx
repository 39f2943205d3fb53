/** What of a sound in the strip is under the pen: its body, its ends, the corners that let it come and go. */
import { find, randomId } from '@tallow/core/document';
import { copySound, removeSound, setSound, trimSoundEnd, trimSoundStart } from '@tallow/core/edit';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { edit, useDocument } from '../shot/document.ts';
import { drag } from '../shot/drag.ts';
import { shotTime } from '../playback/shot-time.ts';
import { hitsOf } from '../sound/hits.ts';
import { useRecordings, type Recording } from '../sound/recordings.ts';
import { selectSound } from '../tools/place/placing.ts';
import type { InView } from './lane-canvas.tsx';
import { edgesOf, partAt, snappedFrame, TIME_SNAP, type Lane } from './lane.ts';
import type { SoundBar } from './wave.ts';

interface SoundHandleProps {
  bar: SoundBar;
  lanes: readonly Lane[];
  view: InView;
  width: number;
  top: number;
  height: number;
  rate: number;
  /** Frames of the shot. */
  length: number;
  state: Recording['state'];
  isSelected: boolean;
}

const STATE_WORDS: Readonly<Record<Recording['state'], string>> = {
  coming: ' · coming',
  there: '',
  missing: ' · it cannot be read here',
};

/** The start of a sound for a drag: it or one of its hits snaps, else it goes by whole frames. */
function startFor({ sound }: SoundBar, wanted: number, marks: readonly number[], rate: number, reach: number): number {
  const offsets = [0, ...hitsOf(sound, rate, useRecordings.getState()).map((hit) => hit - sound.start)];
  const snaps = offsets.flatMap((offset) => {
    const to = snappedFrame(marks, wanted + offset, reach);
    return to === wanted + offset ? [] : [to - offset];
  });
  const nearest = snaps.toSorted((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted))[0];
  return nearest ?? Math.round(wanted);
}

export function SoundHandle(props: SoundHandleProps) {
  const { bar, lanes, view, width, top, height, rate, length, state, isSelected } = props;
  const { sound, from, to } = bar;
  const [told, setTold] = useState<string | null>(null);
  const left = (from - view.from) * view.perFrame;
  const wide = Math.max(8, (to - from) * view.perFrame);
  if (left > width || left + wide < 0) return null;
  const placeOf = (event: { clientX: number }) => ({ x: event.clientX / view.perFrame, y: 0 });
  const begin = (event: PointerEvent<HTMLElement>): void => {
    const rect = event.currentTarget.getBoundingClientRect();
    const part = event.ctrlKey ? 'copy' : partAt(event.clientX - rect.left, rect.width);
    const marks = [shotTime().frame, ...edgesOf(lanes, [])];
    const reach = TIME_SNAP / view.perFrame;
    const copyId = randomId();
    selectSound(sound.id);
    drag(event, {
      placeOf,
      name: part === 'body' ? 'move a sound' : part === 'copy' ? 'one more of a sound' : 'trim a sound',
      change: (doc, at, began) => {
        const by = at.x - began.x;
        if (part === 'start') return trimSoundStart(doc, sound.id, snappedFrame(marks, Math.round(from + by), reach));
        if (part === 'end') return trimSoundEnd(doc, sound.id, snappedFrame(marks, Math.round(to + by), reach));
        const start = startFor(bar, from + by, marks, rate, reach);
        return part === 'copy' ? copySound(doc, sound.id, start, () => copyId).doc : setSound(doc, sound.id, { start });
      },
      moved: () => {
        const { doc } = useDocument.getState();
        const now = doc && find(doc, 'sound', part === 'copy' ? copyId : sound.id);
        if (now) setTold(`from ${Math.round((now.start + 1) * 10) / 10}`);
      },
      done: () => {
        if (part === 'copy') selectSound(copyId);
      },
      over: () => {
        setTold(null);
      },
    });
  };
  const fade = (which: 'fadeIn' | 'fadeOut') => (event: PointerEvent<HTMLElement>) => {
    const way = which === 'fadeIn' ? 1 : -1;
    drag(event, {
      placeOf,
      name: which === 'fadeIn' ? 'sound comes' : 'sound goes',
      change: (doc, at, began) => setSound(doc, sound.id, { [which]: sound[which] + (way * (at.x - began.x)) / rate }),
    });
  };
  const key = (event: KeyboardEvent<HTMLElement>): void => {
    const by = event.code === 'ArrowRight' ? 1 : event.code === 'ArrowLeft' ? -1 : 0;
    if (event.code === 'Delete' || event.code === 'Backspace') {
      event.preventDefault();
      event.stopPropagation();
      edit('take a sound away', (doc) => removeSound(doc, sound.id));
      selectSound(null);
      return;
    }
    if (by === 0) {
      if (event.code !== 'Enter') return;
      event.preventDefault();
      selectSound(sound.id);
      return;
    }
    event.preventDefault();
    selectSound(sound.id);
    edit(
      'move a sound',
      (doc) => {
        const now = find(doc, 'sound', sound.id);
        return now ? setSound(doc, sound.id, { start: now.start + by }) : doc;
      },
      `sound-${sound.id}-keys`,
    );
  };
  return (
    <div className="absolute touch-none" style={{ left, width: wide, top, height }}>
      <div
        role="slider"
        tabIndex={0}
        data-arrows
        data-testid="sound-bar"
        data-name={sound.name}
        data-start={from}
        data-end={to}
        data-state={state}
        aria-label={sound.name}
        aria-valuenow={Math.round(from) + 1}
        aria-valuemin={1}
        aria-valuemax={length}
        aria-valuetext={`from frame ${Math.round(from) + 1} to ${Math.round(to)}`}
        data-tip={`${sound.name}${STATE_WORDS[state]} · drag to begin it elsewhere, its ends to trim it, with Ctrl one more`}
        className="absolute inset-0 cursor-grab rounded-md"
        onPointerDown={begin}
        onKeyDown={key}
      />
      <span
        className={`pointer-events-none absolute bottom-px max-w-[calc(100%-16px)] truncate rounded-sm bg-soot-950/60 px-1 text-[11px] leading-4 text-wax-100 ${isSelected ? 'left-6' : 'left-2'}`}
      >
        {sound.name}
        {STATE_WORDS[state]}
      </span>
      {isSelected
        ? (['fadeIn', 'fadeOut'] as const).map((which) => {
            const inset = sound[which] * rate * view.perFrame;
            return (
              <span
                key={which}
                data-testid={which}
                data-tip={which === 'fadeIn' ? 'Drag: over how long it comes' : 'Drag: over how long it goes'}
                className="absolute -top-0.5 grid size-5 -translate-x-1/2 cursor-ew-resize touch-none place-items-center"
                style={which === 'fadeIn' ? { left: Math.max(12, inset) } : { left: Math.min(wide - 12, wide - inset) }}
                onPointerDown={fade(which)}
              >
                <span className="size-2.5 rounded-full border-2 border-soot-950 bg-flame" />
              </span>
            );
          })
        : null}
      {told ? (
        <span className="pointer-events-none absolute -top-4 left-0 z-10 rounded bg-soot-950 px-1 font-mono text-[11px] text-flame">
          {told}
        </span>
      ) : null}
    </div>
  );
}
