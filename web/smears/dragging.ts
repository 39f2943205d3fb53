/** Setting a smear by a drag: sideways for the amount, across for the bend of its way, while it plays round and round. */
import { find, randomId, type Id, type Smear } from '@tallow/core/document';
import { smearOf } from '@tallow/core/smears';
import { frameOfSlot } from '@tallow/core/timing';
import { openEngine } from '../picture/open-engine.ts';
import { playback, setPlayback, stopPlaying } from '../playback/playback.ts';
import { goTo } from '../playback/playhead.ts';
import { current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { endGesture, say, useDocument } from '../shot/document.ts';
import { dropGesture, laySmearHere, relay, relayed, smearNow, whyNotSmear, type SmearRequest } from './smear.ts';

/** CSS px of a drag for the whole range of the amount, and for a radian of bend. */
const [ACROSS, RADIAN] = [320, 160] as const;
/** Frames that are played before a smear and after it. */
const ROUND = 6;

/** The number of a kind that says how much: the first that is no choice. */
export const amountOf = (form: Smear['form']) => smearOf(form).controls.find(({ choices }) => !choices)!;

const smearById = (id: Id): Smear | null => find(useDocument.getState().doc!, 'smear', id) ?? null;

/** Plays what lies round a smear until told to stop. @returns what stops it and brings everything back. */
function playRound(smear: Smear): () => void {
  const now = current();
  const before = { range: playback().range, loops: playback().loops };
  const { frame } = selection();
  const at = now ? (frameOfSlot(now.doc, smear.layerId, smear.stops.at(-1)!) ?? frame) : frame;
  const from = Math.max(0, at - ROUND);
  setPlayback({ range: { from, length: Math.min((now?.length ?? at + 1) - from, 2 * ROUND) }, loops: true });
  if (!playback().playing) void openEngine()?.player.play();
  return () => {
    stopPlaying();
    setPlayback(before);
    goTo(frame);
  };
}

export interface SmearDrag {
  /** @param dx @param dy CSS px since it began. */
  readonly move: (dx: number, dy: number) => void;
  readonly up: () => void;
  readonly drop: () => void;
}

/** Begins a drag that lays a smear here, or sets the one that is. */
export function dragSmear(laid: Smear | null, asked: SmearRequest): SmearDrag {
  const gesture = `smear-${randomId()}`;
  let stop: (() => void) | null = null;
  let ended = false;
  let last: readonly [number, number] | null = null;
  let base: Smear | null = laid;
  const begin = (smear: Smear | null): void => {
    if (!smear || ended) return;
    base = smear;
    if (last) set(...last);
  };
  const set = (dx: number, dy: number): void => {
    last = [dx, dy];
    if (!base) return;
    stop ??= playRound(base);
    const { key, min, max, step } = amountOf(base.form);
    const amount = (base.settings[key] ?? min) + (dx / ACROSS) * (max - min);
    const settings = { ...base.settings, [key]: Math.min(max, Math.max(min, Math.round(amount / step) * step)) };
    const bend = Math.min(3, Math.max(-3, base.bend - (Math.abs(dy) < 12 ? 0 : (dy - 12 * Math.sign(dy)) / RADIAN)));
    relay(base.id, { settings, bend }, smearOf(base.form).name.toLowerCase(), gesture);
  };
  if (!laid)
    void laySmearHere(asked, gesture).then((id) => {
      begin(id ? smearById(id) : null);
      if (ended) endGesture();
    });
  return {
    move: set,
    up: () => {
      ended = true;
      stop?.();
      // What is still being computed belongs to the drag.
      void relayed().then(endGesture);
    },
    drop: () => {
      ended = true;
      stop?.();
      dropGesture(gesture);
    },
  };
}

let held: SmearDrag | null = null;
let from: { x: number; y: number } | null = null;
const follow = (event: PointerEvent): void => {
  from ??= { x: event.clientX, y: event.clientY };
  held?.move(event.clientX - from.x, event.clientY - from.y);
};

/** Begins setting the smear here by moving the pen, until it is let go. @returns whether there is something to set. */
export function holdSmear(asked: SmearRequest): boolean {
  if (held) return true;
  const [laid] = smearNow().laid;
  const trouble = laid ? null : whyNotSmear();
  if (trouble) {
    say(trouble);
    return false;
  }
  from = null;
  held = dragSmear(laid ?? null, asked);
  addEventListener('pointermove', follow);
  return true;
}

export function endSmearDrag(): void {
  if (!held) return;
  removeEventListener('pointermove', follow);
  held.up();
  held = null;
}
