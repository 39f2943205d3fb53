/** The swing: a blowpipe swung round, from its keys and breakdowns: the glass smeared through the stroke, sparks behind it, squash and settle. */
import { computeBetweens, fractionsFor } from '@tallow/core/between';
import type { Settings } from '@tallow/core/controls';
import { find, type Mark, type Shape, type ShotDocument, type SmearForm } from '@tallow/core/document';
import { endsOf } from '@tallow/core/derived';
import {
  addLayer,
  addMarks,
  addPath,
  gapAt,
  holdFor,
  layBetweens,
  laySmear,
  newDrawing,
  newSmear,
  putArrival,
  putTracePoint,
  setElement,
  setPath,
  setPlan,
  setPose,
  smearPlace,
  smearWork,
  subjectLayers,
  tieLayer,
  type SmearPlan,
} from '@tallow/core/edit';
import { discRing, fitRing, polygonRing, seededIds, type Point } from '@tallow/core/geometry';
import { outlined } from '@tallow/core/marks';
import { PHASE_SETS, phasesFrom, wayThrough } from '@tallow/core/plan';
import { arrivedAs, computeSmear, SETTLING, SQUASHED, type SmearWork } from '@tallow/core/smears';
import { frameOfSlot } from '@tallow/core/timing';
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

/** Layers of the thing, topmost first, all tied in time; smears are laid from the glass. */
const LAYERS = [
  ['Line', 'line'],
  ['Light', 'tone'],
  ['Glass', 'body'],
  ['Pipe', 'body'],
] as const;
type LayerName = (typeof LAYERS)[number][0];

/** Radius of the glass, px. */
const GLASS = 78;

/** A drop of molten glass, its point trailing. @param turn radians, the way it goes. */
function dropRing({ x, y }: Point, radius: number, turn: number): Float32Array {
  const points = Array.from({ length: 40 }, (_, i): [number, number] => {
    const own = (i / 40) * 2 * Math.PI;
    const reach = radius * (1 + 0.16 * Math.max(0, -Math.cos(own)) ** 3);
    return [x + reach * Math.cos(own + turn), y + reach * Math.sin(own + turn)];
  });
  return fitRing(points, 0.2);
}

/** The pipe with the glass at its end, layer by layer. @param degrees clockwise from the right. @param drag how far the glass trails behind, degrees. */
function pose(degrees: number, drag: number, swatch: SwatchOf, newId: () => string): Record<LayerName, Mark[]> {
  const [cos, sin] = [Math.cos(radians(degrees)), Math.sin(radians(degrees))];
  const at = (along: number, across: number): [number, number] => [
    along * cos - across * sin,
    along * sin + across * cos,
  ];
  const shape = (key: string, ring: Float32Array, piece?: string): Shape => ({
    kind: 'shape',
    id: newId(),
    swatch: swatch(key),
    rings: [ring],
    rule: 'nonzero',
    opacity: 1,
    ...(piece ? { piece } : {}),
  });
  const pipe = shape('iron', polygonRing([at(-90, -9), at(PIPE, -6), at(PIPE, 6), at(-90, 9)]));
  const middle = tipAt(degrees - drag);
  const glass = shape('body', dropRing(middle, GLASS, radians(degrees - drag + 90)), 'glass');
  const line = (of: Shape, width: number) => outlined(of, width, swatch('line'), newId, 4);
  return {
    Line: line(glass, 6),
    Light: [shape('light', discRing(middle.x - GLASS * 0.24, middle.y - GLASS * 0.28, GLASS * 0.34))],
    Glass: [glass],
    Pipe: [pipe, ...line(pipe, 4)],
  };
}

/** Keys and breakdowns: where the pipe stands, how far the glass trails, for how long it is held, and what follows it. */
const POSES = [
  { kind: 'key', degrees: -140, drag: 0, hold: 6, then: 1, favour: 0.4 },
  { kind: 'breakdown', degrees: -166, drag: -2, hold: 3, then: 0, favour: 0 },
  { kind: 'breakdown', degrees: -118, drag: 6, hold: 1, then: 0, favour: 0 },
  { kind: 'breakdown', degrees: -88, drag: 8, hold: 1, then: 0, favour: 0 },
  { kind: 'breakdown', degrees: -14, drag: 5, hold: 1, then: 0, favour: 0 },
  { kind: 'key', degrees: 34, drag: -5, hold: 1, then: 2, favour: 0.3 },
  { kind: 'key', degrees: 12, drag: 0, hold: 10, then: 0, favour: 0 },
] as const;

/** Which of them the stroke's smears arrive at. */
const [STRETCHED, STRUCK] = [4, 5] as const;

export function theSwing(): ShotDocument {
  const newId = seededIds(6601);
  const { swatches, swatch } = swatchesFor(
    {
      iron: ['iron', 'outline', '#6d6a72'],
      body: ['molten', 'body', '#f28a2e'],
      light: ['molten light', 'light', '#ffe3a1'],
      line: ['burnt line', 'outline', '#3a130b'],
      ...WORKSHOP,
    },
    newId,
  );
  const start = newShot(THE_SWING_ID, { name: 'The swing', length: 48, background: '#171419' }, swatches, newId);
  const swing = addElementTo(start, 'Blowpipe', { x: 980, y: 640 }, newId);
  let doc = stillElement(swing.doc, 'Workshop', gatherRoom(swatch, newId), 'behind', newId);
  const ids = {} as Record<LayerName, string>;
  for (const [name, role] of LAYERS.toReversed()) {
    const added = addLayer(doc, swing.elementId, name, role, null, newId);
    [doc, ids[name]] = [added.doc, added.layerId];
  }
  const lead = ids.Glass;
  doc = setElement(doc, swing.elementId, { time: 'one-shot' });

  let frame = 0;
  POSES.forEach((each, i) => {
    if (i > 0) ({ doc, frame } = newDrawing(doc, lead, frame, newId));
    doc = addMarks(doc, lead, frame, pose(each.degrees, each.drag, swatch, newId).Glass, newId);
    doc = holdFor(doc, lead, frame, each.hold).doc;
  });
  const others = LAYERS.flatMap(([name]) => (name === 'Glass' ? [] : [name]));
  for (const name of others) doc = tieLayer(doc, ids[name], lead);

  const runs = () => find(doc, 'runlist', find(doc, 'layer', lead)!.runListId)!;
  const slots = runs().runs.map(({ slot }) => slot!);
  const startOf = (slot: string) => frameOfSlot(doc, lead, slot)!;
  slots.forEach((slot, i) => {
    const { degrees, drag, kind } = POSES[i]!;
    const marks = pose(degrees, drag, swatch, newId);
    for (const name of others) doc = addMarks(doc, ids[name], startOf(slot), marks[name], newId);
    doc = setPose(doc, lead, [runs().runs.findIndex((run) => run.slot === slot)], kind);
  });
  slots.forEach((slot, i) => {
    const { then, favour } = POSES[i]!;
    if (then === 0) return;
    const shares = fractionsFor(then, { softStart: 0, softEnd: 0, favour });
    for (const layerId of [lead, ...others.map((name) => ids[name])]) {
      const gap = gapAt(doc, layerId, startOf(slot))!;
      const plan = { layerId, from: gap.from, to: gap.to, shares, way: 'arc' as const, pathId: null, ties: [] };
      const [from, to] = endsOf(doc, plan)!;
      const drawings = computeBetweens({ from, to, before: null, path: null, settings: plan }, newId);
      const frames = gap.bare.length > 0 ? 'slots' : 'insert';
      doc = layBetweens(doc, gap, plan, drawings, { from, to, path: null }, frames, newId).doc;
    }
  });

  const runSlot = (index: number) => runs().runs[index]!.slot!;
  // The outer and the inner edge of the glass are followed: between their arcs lies the swath.
  const edges = [GLASS, -GLASS].map((off) => ({ traceId: newId(), reach: PIPE + off }));
  for (const { traceId, reach } of edges)
    slots.forEach((slot, i) => {
      const { degrees, drag } = POSES[i]!;
      const { x, y } = tipAt(degrees - drag);
      doc = putTracePoint(doc, lead, traceId, slot, { x: (x * reach) / PIPE, y: (y * reach) / PIPE }, false);
    });

  /** A smear of the glass to the drawing of a run. */
  const planTo = (index: number, form: SmearForm, settings: Settings): { plan: SmearPlan; work: SmearWork } => {
    const place = smearPlace(doc, lead, index, 'longer')!;
    const plan = { ...newSmear(place, subjectLayers(doc, lead), form, settings), piece: 'glass' };
    return { plan, work: smearWork(doc, plan)! };
  };
  const lay = (index: number, form: SmearForm, settings: Settings): void => {
    const { plan, work } = planTo(index, form, settings);
    doc = laySmear(doc, plan, computeSmear(work, newId), null, newId).doc;
  };
  const runOf = (pose_: number) => runs().runs.findIndex(({ slot }) => slot === slots[pose_]);
  // Where it strikes it is squashed for a frame and settles for one; the sparks and the swath arrive with the squash.
  const { work: struck } = planTo(runOf(STRUCK), 'stretch', {});
  for (const long of [SQUASHED, SETTLING])
    doc = putArrival(doc, lead, slots[STRUCK]!, arrivedAs(struck, long, newId), newId).doc;
  const squashed = runOf(STRUCK) - 2;
  for (const { traceId, reach } of edges) {
    const { degrees, drag } = POSES[STRUCK];
    const { x, y } = tipAt(degrees - drag);
    const at = { x: (x * reach) / PIPE, y: (y * reach) / PIPE };
    doc = putTracePoint(doc, lead, traceId, runSlot(squashed), at, false);
  }
  lay(squashed, 'swath', { bite: 40, lasts: 2, opacity: 90 });
  lay(squashed, 'trail', { length: 85, width: 90, breaks: 90, into: 1, drawings: 3 });
  lay(runOf(STRETCHED), 'stretch', { amount: 90, spread: 20, thins: 20 });

  const arc = wayThrough([-166, -118, -60, 0, 34].map(tipAt), false);
  const path = addPath(doc, swing.elementId, { nodes: arc, closed: false }, 0, newId);
  const spaced = setPath(path.doc, path.pathId, { name: 'Stroke', from: 9, ticks: 6, softStart: 0.5, softEnd: 0.15 });
  const lit = finishedWith(
    spaced,
    { Glass: [{ kind: 'glow', numbers: { radius: 32, strength: 80, radii: 2, bright: 45 } }] },
    newId,
  );
  const set = PHASE_SETS.find(({ name }) => name === 'Stroke')!;
  return setPlan(lit, swing.elementId, { phases: phasesFrom(set, 32, newId) });
}
