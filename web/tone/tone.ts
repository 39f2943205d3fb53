/** Tone on the desk: cut from a body in the compute worker, laid, and laid again by itself when what it hangs on changes. */
import { hasShape } from '@tallow/core/derived';
import {
  find,
  randomId,
  TONE_KEYS,
  valueAt,
  withKey,
  withNumber,
  type Id,
  type ShotDocument,
  type Tone,
} from '@tallow/core/document';
import {
  fillPlace,
  indicesOf,
  layTone,
  newTone,
  setElement,
  toneAbout,
  toneSlots,
  type ToneSlot,
} from '@tallow/core/edit';
import { roundOf, shownOn } from '@tallow/core/timing';
import { proxy } from 'comlink';
import { create } from 'zustand';
import { compute } from '../workers/compute-client.ts';
import { current, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { edit, endGesture, say } from '../shot/document.ts';
import { runsToEdit } from '../selection/to-edit.ts';
import { withDrawings } from '../saving/drawings.ts';

export const useTone = create<{ working: { readonly done: number; readonly of: number } | null }>(() => ({
  working: null,
}));

/** The tone the active layer has to do with, or the one it would get. */
export function toneNow(now: Current): { tone: Tone; isNew: boolean } | null {
  if (!now.active) return null;
  const { layer } = now.active;
  // Lines are shaded by what they are filled with.
  const { fillLayerId } = fillPlace(now.doc, layer.id, 'this');
  const body = find(now.doc, 'layer', fillLayerId) ?? layer;
  const known = toneAbout(now.doc, layer.id) ?? toneAbout(now.doc, body.id);
  return known ? { tone: known, isNew: false } : { tone: newTone(body, randomId), isNew: true };
}

export function whyNotTone(now: Current | null): string | null {
  if (!now?.active) return 'There is no layer. Add one first.';
  const found = toneNow(now);
  const body = find(now.doc, 'layer', found?.tone.bodyId);
  if (!body) return 'The body of this tone is gone.';
  const drawings = Object.values(body.slots).flatMap((id) => find(now.doc, 'drawing', id) ?? []);
  return drawings.some(hasShape)
    ? null
    : `“${body.name}” has no filled shapes: tone is cut from a body. Fill the lines first.`;
}

type ToneRange = 'this' | 'picked' | 'all';

/** Slots of the body that are meant, or null for all. */
function slotsFor(now: Current, tone: Tone, range: ToneRange): ReadonlySet<Id> | null {
  if (range === 'all') return null;
  const timed = now.layers.find(({ layer }) => layer.id === tone.bodyId);
  const runs = range === 'picked' ? runsToEdit() : null;
  if (runs && timed)
    return new Set(indicesOf(runs, timed.list.runs.length).flatMap((index) => timed.list.runs[index]?.slot ?? []));
  const shown = timed && shownOn(timed, selection().frame, now.length);
  return new Set(shown ? [shown.slot] : []);
}

async function cut(slots: readonly ToneSlot[], quiet: boolean) {
  const told = quiet
    ? () => Promise.resolve()
    : (done: number, of: number) => {
        useTone.setState({ working: { done, of } });
        return Promise.resolve();
      };
  if (!quiet) useTone.setState({ working: { done: 0, of: slots.length } });
  try {
    const shapes = await compute().tone(
      slots.map(({ work }) => work),
      proxy(told),
    );
    return shapes && slots.map(({ slot, print }, i) => ({ slot, print, shapes: shapes[i]! }));
  } finally {
    if (!quiet) useTone.setState({ working: null });
  }
}

/** Lays tone of the active layer's body on some of its drawings. */
export function layToneHere(range: ToneRange): void {
  const now = current();
  const trouble = whyNotTone(now);
  const found = now && toneNow(now);
  if (!now || !found || trouble) {
    say(trouble ?? 'There is nothing to shade.');
    return;
  }
  const { tone } = found;
  const body = find(now.doc, 'layer', tone.bodyId)!;
  withDrawings(Object.values(body.slots), () => {
    const here = current();
    if (!here) return;
    const slots = toneSlots(here.doc, tone, slotsFor(here, tone, range));
    if (slots.length === 0) {
      say('The body shows nothing here.');
      return;
    }
    void cut(slots, slots.length < 3).then((cuts) => {
      if (!cuts) return;
      const more = range === 'all' ? { everywhere: true } : {};
      edit('tone', (doc) => layTone(doc, { ...(find(doc, 'tone', tone.id) ?? tone), ...more }, cuts, randomId));
    }, notCut);
  });
}

const notCut = (error: unknown): void => {
  say(`The tone could not be cut: ${error instanceof Error ? error.message : String(error)}`);
};

let setting = 0;
/**
 * Sets something of a tone that is laid. While it moves, the drawing shown is cut; let go, all it was laid for.
 */
export function setTone(tone: Tone, changes: Partial<Tone>, done: boolean): void {
  setting += 1;
  const own = setting;
  const now = current();
  if (!now) return;
  const next = { ...tone, ...changes };
  const laid = new Set(Object.keys(tone.hangsOn));
  const shown = slotsFor(now, tone, 'this') ?? new Set();
  const wanted = done ? laid : new Set([...shown].filter((slot) => laid.has(slot)));
  const slots = toneSlots(now.doc, next, wanted);
  void cut(slots, !done || slots.length < 3).then((cuts) => {
    if (!cuts || own !== setting) return;
    edit(
      'tone',
      (doc) => layTone(doc, { ...(find(doc, 'tone', tone.id) ?? tone), ...changes }, cuts, randomId),
      `tone-${tone.id}`,
    );
    if (done) endGesture();
  }, notCut);
}

/** Turns the light of the active element; where it turns over time, on this frame. */
export function setToneLight(angle: number, keyed: boolean): void {
  const now = current();
  if (!now) return;
  const { frame } = selection();
  edit(
    'direction of light',
    (doc) => {
      const element = find(doc, 'element', now.element.id)!;
      const light = keyed ? withKey(element.light, frame, angle) : withNumber(element.light, frame, angle);
      return setElement(doc, element.id, { light });
    },
    `light-${now.element.id}`,
  );
}

export const lightNow = (now: Current): number =>
  valueAt(now.element.light, selection().frame, roundOf(now.element, now.length));

/** How tone is cut again when body, details or light have changed. */
export async function toneAgain(doc: ShotDocument, stale: Tone, parts: readonly Id[]) {
  const cuts = await cut(toneSlots(doc, stale, new Set(parts)), true);
  return (
    cuts &&
    ((latest: ShotDocument) => {
      const tone = find(latest, 'tone', stale.id);
      return tone ? layTone(latest, tone, cuts, randomId) : latest;
    })
  );
}

/** Layers of a tone that are there, in its order. */
export const toneLayers = (now: Current, tone: Tone) =>
  TONE_KEYS.flatMap((key) => {
    const layer = find(now.doc, 'layer', tone.layers[key]);
    return layer ? [{ key, layer }] : [];
  });
