/** Small pictures of drawings for wheel, strip and layers: asked of the painter one at a time, kept by content. */
import {
  find,
  findAll,
  shotOf,
  valueAt,
  type Element,
  type Entity,
  type Id,
  type Layer,
  type ShotDocument,
} from '@tallow/core/document';
import { EMPTY_BOX, grown, isEmpty, union, type Box } from '@tallow/core/geometry';
import { ByteCache, drawingRoom } from '@tallow/core/render';
import { isVisible, roundOf, shiftAt, shownOn, type TimedLayer } from '@tallow/core/timing';
import { create } from 'zustand';
import { coloursIn, contentId } from './content.ts';
import { framesFirst } from './open-engine.ts';
import type { MiniatureRequest } from '../workers/paint.ts';
import { besidePainter } from '../workers/painter-client.ts';

const BYTES = 48 * 1024 * 1024;
const kept = new ByteCache<ImageBitmap>(BYTES, (bitmap) => {
  bitmap.close();
});
const wanted = new Map<string, () => Promise<ImageBitmap>>();
let working = false;

/** Counts pictures that have arrived, so that whoever shows some can look again. */
export const useArrivals = create<{ count: number }>(() => ({ count: 0 }));

/** Drawings this many times the size of the shot are left out of what is looked at closely. */
const WIDEST = 3;

/** The common room of drawings. What covers far more than the picture, an impact frame, says nothing about where the effect is. */
function roomOf(doc: ShotDocument, drawingIds: readonly Id[]): Box {
  const { width, height } = shotOf(doc);
  const widest = WIDEST * Math.max(width, height);
  let box = EMPTY_BOX;
  for (const id of drawingIds) {
    const drawing = find(doc, 'drawing', id);
    const room = drawing && drawingRoom(drawing);
    if (room && room.right - room.left < widest) box = union(box, room);
  }
  return box;
}

/** Rooms of layers in a document: several parts of the page ask for the same ones after each edit. */
const rooms = new WeakMap<ShotDocument, Map<Id, Box>>();

/** The room of a layer as it was asked for last, and the drawings it was measured from. */
interface Measured {
  readonly ids: readonly Id[];
  readonly drawings: readonly (Entity | undefined)[];
  readonly room: Box;
}
/** By the slots they stand in: most edits leave most layers as they are. */
const measured = new WeakMap<Layer['slots'], Measured>();

function layerRoom(doc: ShotDocument, { id, slots }: Layer): Box {
  const known = rooms.get(doc) ?? new Map<Id, Box>();
  rooms.set(doc, known);
  const room = known.get(id) ?? roomIn(doc, slots);
  known.set(id, room);
  return room;
}

function roomIn(doc: ShotDocument, slots: Layer['slots']): Box {
  const before = measured.get(slots);
  if (before?.ids.every((id, i) => doc.entities[id] === before.drawings[i])) return before.room;
  const ids = before?.ids ?? Object.values(slots);
  const room = roomOf(doc, ids);
  measured.set(slots, { ids, drawings: ids.map((id) => doc.entities[id]), room });
  return room;
}

/** A box to a few px, so that it stays the same while a drawing grows a little; null where nothing is drawn. */
function rounded(room: Box): Box | null {
  const box = grown(room, 4);
  if (isEmpty(box)) return null;
  const to = (v: number, round: (v: number) => number) => round(v / 16) * 16;
  return {
    left: to(box.left, Math.floor),
    top: to(box.top, Math.floor),
    right: to(box.right, Math.ceil),
    bottom: to(box.bottom, Math.ceil),
  };
}

/** The common box of drawings in element space, to a few px, or null where nothing is drawn. */
export const boxAround = (doc: ShotDocument, drawingIds: readonly Id[]): Box | null => rounded(roomOf(doc, drawingIds));

/** The common box of all drawings of layers that stand in a document. */
export const boxOfLayers = (doc: ShotDocument, layers: readonly Layer[]): Box | null =>
  rounded(layers.map((layer) => layerRoom(doc, layer)).reduce(union, EMPTY_BOX));

/** Layers that small pictures of a whole element show: those seen, without guides and without what never changes. */
export const movingOf = (layers: readonly TimedLayer[]): TimedLayer[] =>
  layers.filter((timed) => isVisible(timed) && timed.layer.role !== 'guide' && timed.list.period !== 1);

/** ms between tellings of arrivals: while few are wanted, as after a stroke, and while a shot is being filled. */
const TELL_MS = { few: 40, many: 250 } as const;
const FEW = 8;
let telling = false;
/** Tells those who show pictures of arrivals: not of each one, as they look at all of theirs again and draw them. */
function tellSoon(): void {
  if (telling) return;
  telling = true;
  setTimeout(
    () => {
      telling = false;
      useArrivals.setState(({ count }) => ({ count: count + 1 }));
    },
    wanted.size > FEW ? TELL_MS.many : TELL_MS.few,
  );
}

/** What was asked for last is drawn first: it is what is looked at now. */
function lastWanted(): [string, () => Promise<ImageBitmap>] | undefined {
  let last: [string, () => Promise<ImageBitmap>] | undefined;
  for (const entry of wanted) last = entry;
  return last;
}

async function work(): Promise<void> {
  working = true;
  for (let entry = lastWanted(); entry; entry = lastWanted()) {
    const [key, ask] = entry;
    await framesFirst();
    const bitmap = await ask();
    wanted.delete(key);
    kept.set(key, bitmap, bitmap.width * bitmap.height * 4);
    tellSoon();
  }
  working = false;
}

/** What is laid in a small picture: a drawing, and where its layer is put. */
export type SmallItem = MiniatureRequest['items'][number];

/** What layers of an element show on a frame of it, lowest first. */
export function sheetsAt(layers: readonly TimedLayer[], element: Element, frame: number, length: number): SmallItem[] {
  const round = roundOf(element, length);
  return [...layers].reverse().flatMap((timed) => {
    const shown = shownOn(timed, frame, length);
    if (!shown) return [];
    const { layer } = timed;
    const shift = shiftAt(timed, element.anchor, frame, round);
    return [{ drawingId: shown.drawingId, opacity: valueAt(layer.opacity, frame, round), shift }];
  });
}

const looked = new WeakMap<ShotDocument, string>();

/** Everything of layers that small pictures show besides their drawings: looks and tints. */
function looksIn(doc: ShotDocument): string {
  const known = looked.get(doc);
  if (known !== undefined) return known;
  const text = findAll(doc, 'element', shotOf(doc).elements)
    .flatMap(({ layers }) => layers.flatMap((id) => find(doc, 'folder', id)?.layers ?? id))
    .flatMap((id) => find(doc, 'layer', id) ?? [])
    .flatMap(({ id, finishes, tint }) => (finishes.length > 0 || tint ? [`${id}${contentId(finishes)}${tint}`] : []))
    .join();
  looked.set(doc, text);
  return text;
}

/** Tells apart what a small picture of a drawing shows, colours and looks included. */
export function miniatureFingerprint(doc: ShotDocument, drawingId: Id | undefined): string {
  const drawing = find(doc, 'drawing', drawingId);
  return drawing ? `${contentId(drawing)}|${coloursIn(doc)}|${looksIn(doc)}` : '';
}

/** A picture of drawings, lowest first, if it is there; else it is asked for and undefined until it arrives. */
export function miniature(
  doc: ShotDocument,
  items: readonly SmallItem[],
  box: Box,
  width: number,
  height: number,
): ImageBitmap | undefined {
  const drawings = items.flatMap(({ drawingId, opacity, shift }) => {
    const drawing = find(doc, 'drawing', drawingId);
    return drawing ? [`${contentId(drawing)}@${opacity}@${shift?.join()}`] : [];
  });
  const looks = looksIn(doc);
  if (drawings.length === 0) return undefined;
  const colours = coloursIn(doc);
  const key = `${drawings.join()}|${Object.values(box).join()}|${width}x${height}|${colours}|${looks}`;
  const here = kept.get(key);
  if (here) return here;
  if (!wanted.has(key)) {
    wanted.set(key, () => besidePainter().miniature({ items, box, width, height }));
    // What was wanted for an earlier state and is no longer looked for would only hold up the rest.
    if (wanted.size > 160) wanted.delete(wanted.keys().next().value!);
    if (!working) void work();
  }
  return undefined;
}
