/** Laying what a starter computed as layers of drawings, again and again, without losing what was drawn by hand. */
import {
  AT_HOME,
  constant,
  find,
  newLayer,
  putEntities,
  shotOf,
  type Drawing,
  type Element,
  type Folder,
  type Id,
  type LaidDrawing,
  type Layer,
  type Mark,
  type NewId,
  type Run,
  type ShotDocument,
  type Starter,
  type Swatch,
  entitiesOf,
} from '../document/index.ts';
import { drawingOf, marksFrom, starterHolds, starterOf, type LaidFrame } from '../starters/index.ts';
import { exposures, timedLayers, totalLength } from '../timing/index.ts';
import { isAsLaid, fingerprintOf } from '../derived/index.ts';
import { deleteEntities, dropUnkept } from './remove.ts';

/** What becomes of laid drawings that were changed by hand since. */
export type ByHand = 'keep' | 'lay over';

/** Swatches for the paints that are used: the ones it had, else those of the palette by that name, else new ones. */
function paintsFor(
  doc: ShotDocument,
  starter: Starter,
  frames: readonly LaidFrame[],
  newId: NewId,
): { doc: ShotDocument; paints: Record<string, Id> } {
  const used = new Set(frames.flatMap((frame) => Object.values(frame).flatMap((marks) => marks.map((m) => m.paint))));
  const palette = shotOf(doc).swatches.flatMap((id) => find(doc, 'swatch', id) ?? []);
  const paints: Record<string, Id> = { ...starter.paints };
  const made: Swatch[] = [];
  for (const { key, ...rest } of starterOf(starter.effect).paints) {
    if (!used.has(key) || find(doc, 'swatch', paints[key])) continue;
    const found = palette.find((s) => s.role === rest.role && s.name === rest.name);
    if (!found) made.push({ kind: 'swatch', id: newId(), ...rest, gradient: null });
    paints[key] = found?.id ?? made.at(-1)!.id;
  }
  if (made.length === 0) return { doc, paints };
  const shot = shotOf(doc);
  return {
    doc: putEntities(doc, ...made, { ...shot, swatches: [...shot.swatches, ...made.map((s) => s.id)] }),
    paints,
  };
}

/** The folder of a starter's layers, made on top of its element if it has none. */
function folderOf(doc: ShotDocument, starter: Starter, newId: NewId): { doc: ShotDocument; folder: Folder } {
  const own = new Set(Object.values(starter.layers));
  const found = entitiesOf(doc, 'folder').find(
    (e) => e.elementId === starter.elementId && e.layers.some((id) => own.has(id)),
  );
  if (found) return { doc, folder: found };
  const element = find(doc, 'element', starter.elementId)!;
  const folder: Folder = {
    kind: 'folder',
    shift: AT_HOME,
    finishes: [],
    id: newId(),
    elementId: element.id,
    name: starterOf(starter.effect).name,
    visible: true,
    locked: false,
    opacity: constant(1),
    layers: [],
  };
  return { doc: putEntities(doc, folder, { ...element, layers: [folder.id, ...element.layers] }), folder };
}

/** Where a new output's layer belongs in the folder: above the first of the later outputs that is there. */
function placeIn(folder: Folder, layers: Readonly<Record<string, Id>>, keys: readonly string[], at: number): number {
  for (const key of keys.slice(at + 1)) {
    const index = folder.layers.indexOf(layers[key] ?? '');
    if (index >= 0) return index;
  }
  return folder.layers.length;
}

const leadOf = (from: number, newId: NewId): Run[] => (from > 0 ? [{ id: newId(), slot: null, length: from }] : []);

/** Drawings of a layer whose time is laid anew that are not the starter's, or no longer: kept on a layer of their own. */
function keptApart(doc: ShotDocument, layer: Layer, keep: ReadonlySet<Id>, newId: NewId): ShotDocument {
  const list = find(doc, 'runlist', layer.runListId);
  const into = Object.values(doc.entities).find(
    (e): e is Element | Folder => (e.kind === 'element' || e.kind === 'folder') && e.layers.includes(layer.id),
  );
  if (!list || !into) return doc;
  const made = newLayer(layer.elementId, `${layer.name.slice(0, 180).toWellFormed()}, kept`, layer.role, newId);
  const slots: Record<Id, Id> = {};
  const runs: Run[] = [];
  let end = 0;
  for (const { run, start } of exposures(list)) {
    const drawing = run.slot ? layer.slots[run.slot] : undefined;
    if (!run.slot || !drawing || !keep.has(drawing)) continue;
    if (start > end) runs.push({ id: newId(), slot: null, length: start - end });
    runs.push({ ...run, id: newId() });
    slots[run.slot] = drawing;
    end = start + run.length;
  }
  if (runs.length === 0) return doc;
  const at = into.layers.indexOf(layer.id);
  return putEntities(
    doc,
    { ...made.list, runs },
    { ...made.layer, slots },
    { ...into, layers: into.layers.toSpliced(at, 0, made.layer.id) },
  );
}

interface OutputLaying {
  readonly starter: Starter;
  readonly key: string;
  /** Marks of each drawing, in element space. */
  readonly marks: readonly Mark[][];
  readonly holds: readonly number[];
  readonly retimed: boolean;
  readonly byHand: ByHand;
}

/** Lays one output anew on the layer it has. */
function relayOutput(
  doc: ShotDocument,
  layer: Layer,
  laying: OutputLaying,
  newId: NewId,
): { doc: ShotDocument; laid: LaidDrawing[] } {
  const { starter, key, marks, holds, retimed, byHand } = laying;
  const before = starter.laid[key] ?? [];
  const isKept = (each: LaidDrawing) =>
    byHand === 'keep' &&
    find(doc, 'drawing', each.drawingId) !== undefined &&
    !isAsLaid(doc, { ...each, markId: null });
  const laid: LaidDrawing[] = [];
  const made: Drawing[] = [];
  marks.forEach((own, i) => {
    const old = before[i];
    if (old && (isKept(old) || (!retimed && !find(doc, 'drawing', old.drawingId)))) {
      laid.push(old);
      return;
    }
    const drawing = drawingOf(old && find(doc, 'drawing', old.drawingId) ? old.drawingId : newId(), own);
    made.push(drawing);
    laid.push({ drawingId: drawing.id, slot: old?.slot ?? newId(), print: fingerprintOf(drawing) });
  });
  const painted = putEntities(doc, ...made);
  if (!retimed) return { doc: painted, laid };
  // Its time is laid anew: what was drawn by hand and has no place in it is kept beside it.
  const staying = new Set(laid.map((each) => each.drawingId));
  const apart = new Set(
    Object.values(layer.slots).filter((id) => {
      const own = before.find((each) => each.drawingId === id);
      return !staying.has(id) && (own ? isKept(own) : (find(doc, 'drawing', id)?.order.length ?? 0) > 0);
    }),
  );
  const kept = keptApart(painted, layer, apart, newId);
  const list = find(kept, 'runlist', layer.runListId)!;
  const runs = [
    ...leadOf(starter.from, newId),
    ...laid.map(({ slot }, i): Run => ({ id: newId(), slot, length: holds[i]! })),
  ];
  const slots = Object.fromEntries(laid.map(({ slot, drawingId }) => [slot, drawingId]));
  const timed = putEntities(kept, { ...list, runs, period: null, offset: 0 }, { ...layer, slots });
  return { doc: dropUnkept(timed, Object.values(layer.slots)), laid };
}

/**
 * Lays what a starter computed: on new layers in a folder of its own the first time, on the same layers after that.
 * Drawings changed by hand are kept unless told otherwise; layers that were deleted stay deleted. Needs the
 * drawings it laid before loaded.
 * @param starter as it is to be from now on.
 * @param frames one per drawing, as many as `starterHolds` has.
 */
export function layStarter(
  doc: ShotDocument,
  starter: Starter,
  frames: readonly LaidFrame[],
  newId: NewId,
  byHand: ByHand = 'keep',
): ShotDocument {
  const kind = starterOf(starter.effect);
  const old = find(doc, 'starter', starter.id);
  const holds = starterHolds(doc, starter);
  const retimed = !old || old.from !== starter.from || old.length !== starter.length || !sameHolds(doc, old, holds);
  const painted = paintsFor(doc, starter, frames, newId);
  const swatchOf = (paint: string): Id => painted.paints[paint]!;
  let next = painted.doc;
  const layers: Record<string, Id> = { ...starter.layers };
  const laid: Record<string, readonly LaidDrawing[]> = {};
  const keys = kind.outputs.map((output) => output.key);
  kind.outputs.forEach(({ key, name, role, hidden, blend }, at) => {
    const filled = frames.some((frame) => (frame[key]?.length ?? 0) > 0);
    const had = layers[key];
    const layer = find(next, 'layer', had);
    if (!layer && (had || !filled)) return;
    const marks = frames.map((frame) => marksFrom(frame[key] ?? [], swatchOf, starter, newId));
    if (layer) {
      const relaid = relayOutput(next, layer, { starter, key, marks, holds, retimed, byHand }, newId);
      [next, laid[key]] = [relaid.doc, relaid.laid];
      return;
    }
    const into = folderOf(next, { ...starter, layers }, newId);
    const made = newLayer(starter.elementId, name, role, newId);
    const drawings = marks.map((own) => drawingOf(newId(), own));
    const own = drawings.map((d): LaidDrawing => ({ drawingId: d.id, slot: newId(), print: fingerprintOf(d) }));
    const runs = own.map(({ slot }, i): Run => ({ id: newId(), slot, length: holds[i]! }));
    next = putEntities(
      into.doc,
      ...drawings,
      { ...made.list, runs: [...leadOf(starter.from, newId), ...runs] },
      {
        ...made.layer,
        visible: !hidden,
        blend: blend ?? 'normal',
        starterId: starter.id,
        slots: Object.fromEntries(own.map(({ slot, drawingId }) => [slot, drawingId])),
      },
      {
        ...into.folder,
        layers: into.folder.layers.toSpliced(placeIn(into.folder, layers, keys, at), 0, made.layer.id),
      },
    );
    layers[key] = made.layer.id;
    laid[key] = own;
  });
  const element = find(next, 'element', starter.elementId);
  const opened =
    !old && element?.time === 'open'
      ? [{ ...element, time: kind.cycles(starter.settings) ? 'cycle' : 'one-shot' } as const]
      : [];
  const kept = putEntities(next, ...opened, { ...starter, layers, laid, paints: painted.paints });
  return retimed ? roundTogether(doc, kept, starter.id) : kept;
}

/**
 * Lets cycles of different lengths loop together: the shorter get a repeat of their own, so that
 * nothing stops showing before the cycle is over.
 */
function roundTogether(before: ShotDocument, doc: ShotDocument, starterId: Id): ShotDocument {
  const starter = find(doc, 'starter', starterId)!;
  const element = find(doc, 'element', starter.elementId)!;
  if (element.time !== 'cycle' || starter.from !== 0 || !starterOf(starter.effect).cycles(starter.settings)) return doc;
  const timed = timedLayers(doc, element);
  const own = timed.filter(({ layer }) => layer.starterId === starterId);
  const others = timed.filter(({ layer, list }) => layer.starterId !== starterId && list.period === null);
  const was = find(before, 'element', element.id)!;
  const turn = Math.max(0, ...others.map(({ list }) => totalLength(list)));
  if (turn > starter.length) return putEntities(doc, ...own.map(({ list }) => ({ ...list, period: starter.length })));
  const full = was.time === 'cycle' && turn > 0 && turn < starter.length;
  return full
    ? putEntities(
        doc,
        ...others.filter(({ list }) => totalLength(list) === turn).map(({ list }) => ({ ...list, period: turn })),
      )
    : doc;
}

const sameHolds = (doc: ShotDocument, old: Starter, holds: readonly number[]): boolean => {
  const before = Math.max(0, ...Object.values(old.laid).map((each) => each.length));
  const own = starterHolds(doc, old);
  return before === holds.length && own.length === holds.length && own.every((hold, i) => hold === holds[i]);
};

/** The starters that have laid layers of an element which are still there. */
export function startersOf(doc: ShotDocument, elementId: Id): Starter[] {
  const ids = new Set(
    Object.values(doc.entities).flatMap((e) =>
      e.kind === 'layer' && e.elementId === elementId && e.starterId ? [e.starterId] : [],
    ),
  );
  return [...ids].flatMap((id) => find(doc, 'starter', id) ?? []);
}

/** Deletes a starter with its folder and everything it laid; what was drawn over it goes too. */
export function deleteStarter(doc: ShotDocument, starterId: Id): ShotDocument {
  const starter = find(doc, 'starter', starterId);
  if (!starter) return doc;
  const layers = entitiesOf(doc, 'layer').filter((e) => e.starterId === starterId);
  const without = deleteEntities(doc, [starterId, ...layers.map(({ id }) => id)]);
  // Folders that held nothing else go as well.
  const emptied = Object.values(without.entities).flatMap((e) =>
    e.kind === 'folder' && e.layers.length === 0 && find(doc, 'folder', e.id)!.layers.length > 0 ? [e.id] : [],
  );
  return deleteEntities(without, emptied);
}

/** Lets go of a starter: its layers stay as ordinary ones, and are not laid again. */
export const releaseStarter = (doc: ShotDocument, starterId: Id): ShotDocument => deleteEntities(doc, [starterId]);
