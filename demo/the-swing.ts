/** The swing: a blowpipe swung round, begun from its keys and breakdowns; its smears are still to be drawn. */
import { computeBetweens, sharesFor } from '@tallow/core/between';
import { find, type Mark, type ShotDocument } from '@tallow/core/document';
import { endsOf } from '@tallow/core/derived';
import {
  addLayer,
  addMarks,
  addPath,
  gapAt,
  holdFor,
  layBetweens,
  newDrawing,
  prepareSlots,
  putTracePoint,
  setElement,
  setPath,
  setPlan,
  setPose,
} from '@tallow/core/edit';
import { polygonRing, seededIds, type Point, discRing } from '@tallow/core/geometry';
import { PHASE_SETS, phasesFrom, wayThrough } from '@tallow/core/plan';
import { exposures, timedLayers } from '@tallow/core/timing';
import { gatherRoom, WORKSHOP } from './backdrop.ts';
import { THE_SWING_ID } from './ids.ts';
import { addElementTo, finishedWith, newShot, stillElement, swatchesFor } from './scene.ts';

/** Length of the pipe from the hand to the glass, px. */
const PIPE = 470;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const tipAt = (degrees: number): Point => ({
  x: PIPE * Math.cos(radians(degrees)),
  y: PIPE * Math.sin(radians(degrees)),
});

type SwatchOf = (key: string) => string;

/** The pipe with the glass at its end. @param degrees clockwise from the right. @param drag how far the glass trails behind, degrees. */
function pose(degrees: number, drag: number, size: number, swatch: SwatchOf, newId: () => string): Mark[] {
  const [cos, sin] = [Math.cos(radians(degrees)), Math.sin(radians(degrees))];
  const at = (along: number, across: number): [number, number] => [
    along * cos - across * sin,
    along * sin + across * cos,
  ];
  const shape = (key: string, ring: Float32Array): Mark => ({
    kind: 'shape',
    id: newId(),
    swatch: swatch(key),
    rings: [ring],
    rule: 'nonzero',
    opacity: 1,
  });
  const pipe = polygonRing([at(-90, -9), at(PIPE, -6), at(PIPE, 6), at(-90, 9)]);
  const glass = tipAt(degrees - drag);
  return [
    shape('iron', pipe),
    shape('shade', discRing(glass.x, glass.y, size)),
    shape('body', discRing(glass.x - 4, glass.y - 5, size * 0.86)),
    shape('light', discRing(glass.x - size * 0.22, glass.y - size * 0.26, size * 0.36)),
  ];
}

/** Keys and breakdowns: where the pipe stands, how far the glass trails, for how long it is held, and what follows it. */
const POSES = [
  { kind: 'key', degrees: -140, drag: 0, hold: 6, then: 1, favour: 0.4 },
  { kind: 'breakdown', degrees: -166, drag: -2, hold: 3, then: 0, favour: 0 },
  { kind: 'breakdown', degrees: -118, drag: 6, hold: 1, then: 'slots', favour: 0 },
  { kind: 'key', degrees: 34, drag: -5, hold: 2, then: 2, favour: 0.3 },
  { kind: 'key', degrees: 12, drag: 0, hold: 10, then: 0, favour: 0 },
] as const;

/** Slots of the stroke itself, left for its smears. */
const SMEARS = 3;

export function theSwing(): ShotDocument {
  const newId = seededIds(6601);
  const { swatches, swatch } = swatchesFor(
    {
      iron: ['iron', 'outline', '#6d6a72'],
      body: ['molten', 'body', '#f28a2e'],
      light: ['molten light', 'light', '#ffe3a1'],
      shade: ['molten shade', 'shade', '#b8431a'],
      ...WORKSHOP,
    },
    newId,
  );
  const start = newShot(THE_SWING_ID, { name: 'The swing', length: 48, background: '#171419' }, swatches, newId);
  const swing = addElementTo(start, 'Blowpipe', { x: 980, y: 640 }, newId);
  let doc = stillElement(swing.doc, 'Workshop', gatherRoom(swatch, newId), 'behind', newId);
  const added = addLayer(doc, swing.elementId, 'Pipe', 'rough', null, newId);
  const { layerId } = added;
  doc = setElement(added.doc, swing.elementId, { time: 'one-shot' });

  let frame = 0;
  POSES.forEach((each, i) => {
    if (i > 0) ({ doc, frame } = newDrawing(doc, layerId, frame, newId));
    doc = addMarks(doc, layerId, frame, pose(each.degrees, each.drag, 78, swatch, newId), newId);
    doc = holdFor(doc, layerId, frame, each.hold).doc;
    if (each.then !== 'slots') return;
    doc = prepareSlots(doc, layerId, SMEARS, 1, newId);
    frame += each.hold + SMEARS - 1;
  });

  const runs = () => timedLayers(doc, find(doc, 'element', swing.elementId)!)[0]!.list;
  const slots = runs().runs.filter(({ slot }) => slot && find(doc, 'layer', layerId)!.slots[slot]);
  slots.forEach((run, i) => {
    doc = setPose(doc, layerId, [runs().runs.findIndex(({ id }) => id === run.id)], POSES[i]!.kind);
  });
  slots.forEach((run, i) => {
    const { then, favour } = POSES[i]!;
    if (typeof then !== 'number' || then === 0) return;
    const at = exposures(runs()).find((each) => each.run.id === run.id)!.start;
    const gap = gapAt(doc, layerId, at)!;
    const shares = sharesFor(then, { softStart: 0, softEnd: 0, favour });
    const plan = { layerId, from: gap.from, to: gap.to, shares, way: 'arc' as const, pathId: null, ties: [] };
    const [from, to] = endsOf(doc, plan)!;
    const drawings = computeBetweens({ from, to, before: null, path: null, settings: plan }, newId);
    doc = layBetweens(doc, gap, plan, drawings, { from, to, path: null }, 'insert', newId).doc;
  });

  const traceId = newId();
  slots.forEach((run, i) => {
    const { degrees, drag } = POSES[i]!;
    doc = putTracePoint(doc, layerId, traceId, run.slot!, tipAt(degrees - drag), false);
  });
  const arc = wayThrough([-166, -118, -60, 0, 34].map(tipAt), false);
  const path = addPath(doc, swing.elementId, { nodes: arc, closed: false }, 0, newId);
  const spaced = setPath(path.doc, path.pathId, { name: 'Stroke', from: 9, ticks: 6, softStart: 0.5, softEnd: 0.15 });
  const lit = finishedWith(
    spaced,
    { Pipe: [{ kind: 'glow', numbers: { radius: 32, strength: 80, radii: 2, bright: 45 } }] },
    newId,
  );
  const set = PHASE_SETS.find(({ name }) => name === 'Stroke')!;
  return setPlan(lit, swing.elementId, { phases: phasesFrom(set, 32, newId) });
}
