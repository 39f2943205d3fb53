/** What lies under the pen while it may fill: the drawing shown is made ready once, then each place is asked about. */
import { find, findAll, shotOf } from '@tallow/core/document';
import { boundsAt, type FillPlan } from '@tallow/core/edit';
import { apply, invert, mapBox, multiply, type Point } from '@tallow/core/geometry';
import type { FillWork } from '@tallow/core/render';
import { roundOf, shiftAt } from '@tallow/core/timing';
import { contentId } from '../picture/content.ts';
import { current, homeMatrix, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { compute } from '../workers/compute-client.ts';
import { fillingNow, planFor, setFill, toFillLayer } from './fill.ts';

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

/** What was made ready last, or is being: whoever asks for the same meanwhile waits for that. */
let readied: { readonly key: string; readonly done: Promise<boolean> } | null = null;
/** Makes the drawing shown ready to be filled. @returns its key, or null where nothing bounds. */
export async function ready(now: Current, frame: number): Promise<string | null> {
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
