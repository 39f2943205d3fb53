/** Filling on the desk: what bounds, by which rules, what lies under the pen, and the fills as they are laid. */
import { find, findAll, randomId, shotOf, type Id, type Stroke } from '@tallow/core/document';
import { boundsPrint } from '@tallow/core/derived';
import {
  landMarks,
  boundsAt,
  fillOfLayer,
  fillPlace,
  layFills,
  repaint,
  unfill,
  withFillLayer,
  whyNotDrawable,
  type FillBounds,
  type FillPlan,
} from '@tallow/core/edit';
import { apply, invert, mapBox, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import type { FilledShape, FillReport } from '@tallow/core/paint';
import { roundOf, shiftAt } from '@tallow/core/timing';
import { create } from 'zustand';
import { compute } from '../workers/compute-client.ts';
import type { FillThere, FillWork } from '@tallow/core/render';
import { current, homeMatrix, layerMatrix, shownNow, swatchOf, type Current } from '../selection/current.ts';
import { held } from '../hand/held.ts';
import { selection, setSelection, useSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { frameFrom } from '../playback/place.ts';

export type FillMode = 'region' | 'lasso' | 'closing' | 'unfill' | 'repaint';

/** A report with the drawing it is about. */
export interface FillReportAt extends FillReport {
  readonly frame: number;
}

interface FillDesk {
  readonly mode: FillMode;
  readonly bounds: FillBounds;
  readonly gap: number;
  readonly toMiddle: boolean;
  readonly under: number;
  /** Whether a closing stroke fills what it closes. */
  readonly fillsClosed: boolean;
  /** Drawings a fill is carried through, the one shown first. */
  readonly through: number;
  /** Whether drawings that need more than Gap to hold are given it when a fill is carried through them. */
  readonly asNeeded: boolean;
  /** What lies under the pen, of the drawing it was asked about. */
  readonly there: FillThere | null;
  readonly working: { readonly done: number; readonly of: number } | null;
  readonly reports: readonly FillReportAt[];
  /** What became of the drawings that fills were last carried through. */
  readonly outcome: string | null;
}

export const useFill = create<FillDesk>(() => ({
  mode: 'region',
  bounds: 'this',
  gap: 6,
  toMiddle: true,
  under: 3,
  fillsClosed: false,
  through: 500,
  asNeeded: true,
  there: null,
  working: null,
  reports: [],
  outcome: null,
}));
export const setFill = useFill.setState;

/** Widest gap that is closed by itself where a drawing needs it, px: as far as the slider goes. */
export const MAX_GAP = 64;

/** Where fills of the active layer go and what bounds them; the layer may still have to be made. */
export function fillingNow(now: Current): { boundIds: Id[]; layerId: Id | null } | null {
  if (!now.active) return null;
  const { boundIds, fillLayerId } = fillPlace(now.doc, now.active.layer.id, useFill.getState().bounds);
  return { boundIds, layerId: fillLayerId };
}

/** Rules are remembered with the layer that was filled by them. */
useSelection.subscribe(({ layerId }, before) => {
  const now = layerId === before.layerId ? null : current();
  const place = now && fillingNow(now);
  const fill = place?.layerId ? fillOfLayer(now!.doc, place.layerId) : undefined;
  if (fill)
    setFill({ gap: fill.gap, toMiddle: fill.under === null, ...(fill.under === null ? {} : { under: fill.under }) });
});

const planFor = (layerId: Id, bounds: readonly Id[]): FillPlan => {
  const { gap, toMiddle, under } = useFill.getState();
  return { layerId, bounds, gap, under: toMiddle ? null : under };
};

let contents = 0;
const contentIds = new WeakMap<object, number>();
const contentId = (content: object): number => {
  const known = contentIds.get(content) ?? ++contents;
  contentIds.set(content, known);
  return known;
};

/** What a frame is filled from, with a key that changes when any of it does. Null where nothing bounds. */
export function workAt(now: Current, plan: FillPlan, frame: number): { key: string; work: FillWork } | null {
  const { doc, element, length } = now;
  const layer = find(doc, 'layer', plan.layerId) ?? now.active?.layer;
  if (!layer) return null;
  const bounding = boundsAt(doc, element, length, plan.bounds, layer, frame);
  if (bounding.length === 0) return null;
  const rules = { gap: plan.gap, under: plan.under };
  const colours = Object.fromEntries(findAll(doc, 'swatch', shotOf(doc).swatches).map((s) => [s.id, s.colour]));
  const home = homeMatrix(now, frame);
  const timed = now.layers.find((each) => each.layer === layer) ?? { layer, folder: undefined };
  const own = multiply(home, shiftAt(timed, element.anchor, frame, roundOf(element, length)));
  const { width, height } = shotOf(doc);
  const picture = mapBox(invert(own), { left: 0, top: 0, right: width, bottom: height });
  const key = JSON.stringify([bounding.map(({ drawing, matrix }) => [contentId(drawing), matrix]), rules, picture]);
  return {
    key,
    work: { bounding: bounding.map(({ drawing, matrix }) => ({ drawing, matrix })), colours, picture, rules },
  };
}

/** From the active layer's space to that of the layer that is filled. */
export function toFillLayer(now: Current, layerId: Id | null, frame: number): Matrix {
  const timed = now.layers.find(({ layer }) => layer.id === layerId);
  if (!timed) return [1, 0, 0, 1, 0, 0];
  return multiply(invert(layerMatrix({ ...now, active: timed }, frame)), layerMatrix(now, frame));
}

/** What was made ready last, or is being: whoever asks for the same meanwhile waits for that. */
let readied: { readonly key: string; readonly done: Promise<boolean> } | null = null;
/** Makes the drawing shown ready to be filled. @returns its key, or null where nothing bounds. */
async function ready(now: Current, frame: number): Promise<string | null> {
  const place = fillingNow(now);
  if (!place) return null;
  const plan = planFor(place.layerId ?? '', place.boundIds);
  const made = workAt(now, plan, frame);
  if (!made) return null;
  if (readied?.key !== made.key) readied = { key: made.key, done: compute().fillReady(made.key, made.work) };
  const mine = readied;
  let isReady = false;
  try {
    isReady = await mine.done;
  } finally {
    if (!isReady && readied === mine) readied = null;
  }
  return isReady ? made.key : null;
}

/** Makes the drawing shown ready before the pen looks at it: the first look waits for nothing. */
export async function readyBefore(): Promise<void> {
  const now = current();
  if (now?.active) await ready(now, selection().frame);
}

let asking = false;
let next: Point | null = null;
/** How often the pen has looked away: an answer to what it looked at before is none any more. */
let away = 0;
/** Looks what lies under the pen; while one answer is awaited only the latest place is kept. @param at the active layer's space. */
export async function lookAt(at: Point): Promise<void> {
  next = at;
  if (asking) return;
  asking = true;
  try {
    for (;;) {
      const place: Point | null = next;
      if (!place) break;
      next = null;
      const now = current();
      if (!now?.active) break;
      const { frame } = selection();
      const looked = away;
      const key = await ready(now, frame);
      const inFill = apply(toFillLayer(now, fillingNow(now)?.layerId ?? null, frame), place);
      const there = key ? await compute().fillAt(key, inFill) : null;
      if (looked === away && selection().frame === frame) setFill({ there });
    }
  } finally {
    asking = false;
  }
}

export const lookAway = (): void => {
  next = null;
  away += 1;
  setFill({ there: null });
};

/** Why nothing can be filled now, or null. */
export function whyNotFill(now: Current | null): string | null {
  if (!now?.active) return 'There is no layer. Add one first.';
  const trouble = whyNotDrawable(now.active);
  if (trouble) return trouble;
  const place = fillingNow(now);
  const target = now.layers.find(({ layer }) => layer.id === place?.layerId);
  if (target && whyNotDrawable(target)) return whyNotDrawable(target);
  if (!swatchOf(now.doc, held().swatchId)) return 'The palette is empty. Add a swatch to fill with.';
  return null;
}

/** Says why a fill did not hold. */
function sayLeaks({ leaks }: FillThere): void {
  if (!leaks || (leaks.places.length === 0 && leaks.minGap === null)) {
    say('Nothing encloses this place. Fill inside lines that close, or draw a closing stroke.');
    return;
  }
  const count = leaks.places.length;
  const where = count === 1 ? 'at one place: close the line there' : `at ${count} places: close the line there`;
  say(
    leaks.minGap === null
      ? `The fill runs out ${where}.`
      : `The fill runs out ${where} or raise Gap to ${leaks.minGap} px.`,
    leaks.minGap === null
      ? undefined
      : {
          label: `Gap ${leaks.minGap} px`,
          run: () => {
            setFill({ gap: leaks.minGap! });
          },
        },
  );
}

/** Lays shapes on the fill layer of what was in hand when they were asked for, making it where there is none. */
function lay(asked: Current, name: string, frame: number, shapes: readonly FilledShape[], gesture?: string): void {
  const latest = current();
  const swatch = latest && swatchOf(latest.doc, held().swatchId);
  const place = fillingNow(asked);
  const active = asked.active?.layer.id;
  if (!active || !swatch || !place || shapes.length === 0 || !find(latest.doc, 'layer', active)) return;
  const at = frameFrom(asked, frame);
  // The lines stay in hand, though there is a layer now that would be drawn on first.
  if (latest.active?.layer.id === active) setSelection({ layerId: active });
  edit(
    name,
    (doc) => {
      const made = withFillLayer(doc, active, randomId);
      const plan = planFor(made.layerId, place.boundIds);
      const print = boundsPrint(made.doc, plan, at) ?? '';
      const painted = shapes.map((shape) => ({ ...shape, swatch: swatch.id }));
      return layFills(made.doc, plan, at, painted, print, randomId);
    },
    gesture,
  );
}

/** What a fill starts from: the frame, the key of its regions and the way to the fill layer; null, and said, where there is none. */
async function begun(now: Current | null): Promise<{ frame: number; key: string; toFill: Matrix } | null> {
  const trouble = whyNotFill(now);
  if (!now || trouble) {
    say(trouble!);
    return null;
  }
  const { frame } = selection();
  const toFill = toFillLayer(now, fillingNow(now)?.layerId ?? null, frame);
  const key = await ready(now, frame);
  if (key) return { frame, key, toFill };
  say('There are no lines here that could bound a fill. Draw some, or choose other layers at “Bounded by”.');
  return null;
}

/** Fills the regions that lie under some places. @param at the active layer's space. */
export async function fillAt(at: readonly Point[]): Promise<void> {
  const now = current();
  const start = await begun(now);
  if (!now || !start) return;
  const found = new Map<number, FilledShape>();
  let missed: FillThere | null = null;
  for (const place of at) {
    const there = await compute().fillAt(start.key, apply(start.toFill, place));
    if (there.shape) found.set(there.region, there.shape);
    else missed ??= there;
  }
  if (found.size === 0 && missed) sayLeaks(missed);
  lay(now, found.size > 1 ? `fill ${found.size} regions` : 'fill', start.frame, [...found.values()]);
}

/** Fills several regions at once. @param lasso the active layer's space. */
export async function fillMany(which: 'all' | 'silhouette' | 'lasso', lasso: readonly Point[] = []): Promise<void> {
  const now = current();
  const start = await begun(now);
  if (!now || !start) return;
  const { frame, key, toFill } = start;
  const within = lasso.map((p) => apply(toFill, p));
  const shapes = await compute().fillMany(key, which, within);
  if (shapes.length === 0) say('Nothing is enclosed here. Raise Gap, or close the lines.');
  else lay(now, which === 'silhouette' ? 'fill all but the outside' : `fill ${shapes.length} regions`, frame, shapes);
}

/** Draws a line that bounds and is never seen; fills what it closes, if that is wanted. @param at the active layer's space. */
export async function closeWith(at: readonly Point[]): Promise<void> {
  const now = current();
  const swatch = now && swatchOf(now.doc, held().swatchId);
  const place = now && fillingNow(now);
  const lines = now?.layers.find(({ layer }) => layer.id === place?.boundIds[0]);
  const trouble = whyNotDrawable(lines);
  if (!now?.active || !swatch || !lines || trouble) {
    say(trouble ?? 'There are no lines here to close. Draw some first.');
    return;
  }
  const { frame } = selection();
  const before = await ready(now, frame);
  const own = multiply(invert(layerMatrix({ ...now, active: lines }, frame)), layerMatrix(now, frame));
  const points = at.map((p) => apply(own, p));
  const column = (of: (i: number) => number) => Float32Array.from(points, (_, i) => of(i));
  const stroke: Stroke = {
    kind: 'stroke',
    id: randomId(),
    swatch: swatch.id,
    brush: { kind: 'ink', width: 3, opacity: 1, pressure: false },
    seed: 0,
    samples: {
      x: column((i) => points[i]!.x),
      y: column((i) => points[i]!.y),
      pressure: column(() => 1),
      altitude: column(() => Math.PI / 2),
      azimuth: column(() => 0),
    },
    unseen: true,
  };
  const gesture = `close-${stroke.id}`;
  const drawingId = shownNow({ ...now, active: lines }, frame)?.drawingId ?? null;
  const landing = { layerId: lines.layer.id, drawingId, frame: frameFrom(now, frame) };
  edit('closing stroke', (doc) => landMarks(doc, landing, [stroke], randomId), gesture);
  if (!useFill.getState().fillsClosed) return;
  const after = current();
  const there = frameFrom(now, frame);
  const key = after && (await ready(after, there));
  if (!key) return;
  const shapes = await compute().fillClosed(before ?? '', key);
  if (shapes.length === 0) say('This stroke closes nothing yet.');
  else lay(after, 'closing stroke with fill', there, shapes, gesture);
}

/** Takes away the fill, or paints it in the swatch in hand, where the pen is. @param at the active layer's space. */
export async function changeFill(how: 'unfill' | 'repaint', at: Point): Promise<void> {
  const now = current();
  const layerId = now && fillingNow(now)?.layerId;
  const swatch = now && swatchOf(now.doc, held().swatchId);
  if (!now || !layerId || !swatch) {
    say('There is no fill here.');
    return;
  }
  const { frame } = selection();
  const place = apply(toFillLayer(now, layerId, frame), at);
  const key = how === 'unfill' ? await ready(now, frame) : null;
  const there = key ? await compute().fillAt(key, place) : null;
  const { serial } = useDocument.getState();
  const on = frameFrom(now, frame);
  edit(how === 'unfill' ? 'take fill away' : 'fill in another swatch', (doc) =>
    how === 'unfill'
      ? unfill(doc, layerId, on, place, there?.shape?.rings ?? [])
      : repaint(doc, layerId, on, place, swatch.id),
  );
  if (useDocument.getState().serial === serial) say('There is no fill here that could be changed.');
}
