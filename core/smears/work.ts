/** Smears from their settings: what is computed when they are laid, and when they are laid again. */
import { settingsOf } from '../controls/index.ts';
import type { Drawing, Id, Mark, NewId, Smear } from '../document/index.ts';
import { marksInOrder } from '../document/index.ts';
import { apply, type Matrix, type Point } from '../geometry/index.ts';
import { transformed } from '../marks/index.ts';
import type { Flow } from './flow.ts';
import { smearOf } from './kinds.ts';
import { flowOf, motionOf, type Motion, type WayAsked } from './motion.ts';
import type { Smeared, SmearScene, Stop, SubjectLayer } from './scene.ts';
import { smearSilhouette, type Silhouette } from './silhouette.ts';
import { speedOf, type StepSpeed } from './speeds.ts';
import { onSubject, subjectOf } from './subject.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

/** A drawing of each layer of the subject, the first layer being the one it was laid from. */
export interface WorkStop {
  readonly drawings: readonly (Marks | null)[];
  /** From each layer's space to that in which all is worked out. */
  readonly matrices: readonly Matrix[];
  /** Frames since the drawing before. */
  readonly frames: number;
  /** Two traced points of it, where there are such: tip and root. */
  readonly traced: { readonly tip: Point | null; readonly root: Point | null };
}

/** All that a smear is computed from. */
export interface SmearWork {
  readonly layers: readonly Id[];
  readonly stops: readonly WorkStop[];
  readonly smear: Pick<Smear, 'form' | 'piece' | 'marks' | 'rigid' | 'way' | 'bend' | 'settings' | 'seed'>;
  readonly line: readonly Point[] | null;
  readonly contact: readonly Point[] | null;
  readonly room: number;
  readonly cycle: boolean;
  /** From the space in which all is worked out back to each layer's. */
  readonly back: readonly Matrix[];
}

const isStill = ([a, b, c, d, e, f]: Matrix): boolean => a === 1 && b === 0 && c === 0 && d === 1 && e === 0 && f === 0;
const placed = (marks: readonly Mark[], matrix: Matrix): Mark[] =>
  isStill(matrix) ? [...marks] : marks.map((mark) => ({ ...transformed(mark, matrix), id: mark.id }));

/** The subject's marks on two stops, layer by layer, and what else lies on the layers where it arrives. */
interface Step {
  readonly layers: readonly SubjectLayer[];
  readonly rest: ReadonlyMap<Id, { readonly under: readonly Mark[]; readonly over: readonly Mark[] }>;
  readonly left: Silhouette;
  readonly arrived: Silhouette;
}

const EMPTY: Marks = { marks: {}, order: [] };

/** The first layer's drawing where its layer is put: a layer that is moved moves what is drawn on it. */
function leadOf({ drawings, matrices }: WorkStop): Marks {
  const drawing = drawings[0] ?? EMPTY;
  if (isStill(matrices[0]!)) return drawing;
  const marks = placed(marksInOrder(drawing), matrices[0]!);
  return { marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])), order: drawing.order };
}

function stepOf({ layers, smear: { piece, marks } }: SmearWork, from: WorkStop, to: WorkStop, isLast: boolean): Step {
  const asked = { piece, selected: new Set(isLast ? marks : []) };
  const lead = subjectOf(leadOf(from), leadOf(to), asked);
  const isAll = piece === null && asked.selected.size === 0;
  const [leadLeft, leadArrived] = [smearSilhouette(lead.before), smearSilhouette(lead.after)];
  const rest = new Map<Id, { under: Mark[]; over: Mark[] }>();
  const own = layers.map((layerId, i): SubjectLayer => {
    const there = (stop: WorkStop) => placed(marksInOrder(stop.drawings[i] ?? EMPTY), stop.matrices[i]!);
    const [was, is] = [there(from), there(to)];
    const leading = (all: readonly Mark[]) => new Set(all.map(({ id }) => id));
    // Where nothing of the active layer moved, nothing of the others counts.
    const onIt = (all: readonly Mark[], form: Silhouette) =>
      isAll ? (lead.after.length > 0 ? all : []) : onSubject(all, form);
    const [ids, before] =
      i === 0
        ? [leading(lead.after), was.filter(({ id }) => leading(lead.before).has(id))]
        : [leading(onIt(is, leadArrived)), onIt(was, leadLeft)];
    const after = is.filter(({ id }) => ids.has(id));
    const first = is.findIndex(({ id }) => ids.has(id));
    const others = is.map((mark, at) => ({ mark, at })).filter(({ mark }) => !ids.has(mark.id));
    rest.set(layerId, {
      under: others.filter(({ at }) => at < first).map(({ mark }) => mark),
      over: others.filter(({ at }) => at >= first).map(({ mark }) => mark),
    });
    return { layerId, before: [...before], after };
  });
  return {
    layers: own,
    rest,
    left: smearSilhouette(own.flatMap(({ before }) => before)),
    arrived: smearSilhouette(own.flatMap(({ after }) => after)),
  };
}

/** Tip and root on the drawing that arrives where none are traced: what goes farthest and what goes least; else what lies on both sides of the way. */
function bar({ arrived }: Step, flow: Flow): { tip: Point; root: Point } {
  const points = arrived.outlines.flat().map(([x, y]): Point => ({ x, y }));
  const measure = (p: Point): number =>
    flow.about ? Math.hypot(p.x - flow.about.x, p.y - flow.about.y) : -flow.to(p).across;
  const [first] = points;
  if (!first) return { tip: arrived.middle, root: arrived.middle };
  let [tip, root, max, min] = [first, first, -Infinity, Infinity];
  for (const p of points) {
    const m = measure(p);
    if (m > max) [max, tip] = [m, p];
    if (m < min) [min, root] = [m, p];
  }
  return { tip, root };
}

/** The steps of a work with their ways; null where the subject is nowhere to be seen. */
interface Steps {
  readonly steps: readonly Step[];
  readonly motions: readonly Motion[];
  readonly flows: readonly Flow[];
  /** How tip and root went: as the drawings tell where they tell of a turn, whichever way the middle is sent. */
  readonly swings: readonly Flow[];
}

/** How far a traced point turns in a step, on the circle through three of its places; 0 where it goes straight or is not followed. */
function tracedTurn(stops: readonly WorkStop[], to: number): number {
  const at = (i: number) => stops[i]?.traced.tip;
  const [a, b, c] =
    at(to - 2) && at(to - 1) && at(to) ? [at(to - 2)!, at(to - 1)!, at(to)!] : [at(to - 1), at(to), at(to + 1)];
  if (!a || !b || !c) return 0;
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  const [cross, dot] = [ux * vy - uy * vx, ux * vx + uy * vy];
  const [u, v, w] = [Math.hypot(ux, uy), Math.hypot(vx, vy), Math.hypot(c.x - a.x, c.y - a.y)];
  if (u === 0 || v === 0 || w === 0 || dot <= 0) return 0;
  // Twice the angle at the circle over the chord of this step.
  const radius = (u * v * w) / (2 * Math.max(1e-9, Math.abs(cross)));
  const chord = b === at(to) ? u : v;
  return Math.sign(cross) * 2 * Math.asin(Math.min(1, chord / (2 * radius)));
}

/** Worked out once for the same work but for its settings: while a slider moves only the last part is done anew. */
let kept: { readonly key: readonly unknown[]; readonly steps: Steps } | null = null;

function stepsOf(work: SmearWork): Steps {
  const { smear, stops, line } = work;
  const drawn = stops.flatMap(({ drawings, traced, matrices }) => [...drawings, JSON.stringify([traced, matrices])]);
  const key = [
    smear.piece,
    smear.marks.join(),
    smear.way,
    smear.bend,
    JSON.stringify(line),
    work.layers.join(),
    ...drawn,
  ];
  if (kept && key.length === kept.key.length && key.every((each, i) => each === kept!.key[i])) return kept.steps;
  const steps = stops.slice(1).map((stop, i) => stepOf(work, stops[i]!, stop, i === stops.length - 2));
  const motions = steps.map((step) =>
    motionOf(
      step.layers.flatMap(({ before }) => before),
      step.layers.flatMap(({ after }) => after),
      step,
    ),
  );
  // Where the drawings do not tell of a turn, a point that was followed may.
  const turned = motions.map((told, i) => (told.turn === 0 ? { ...told, turn: tracedTurn(stops, i + 1) } : told));
  const flows = turned.map((motion, i) => {
    const isLast = i === motions.length - 1;
    const asked: WayAsked = {
      way: smear.way === 'path' || smear.way === 'line' ? (isLast ? 'line' : 'as drawn') : smear.way,
      line,
      bend: isLast ? smear.bend : 0,
    };
    return flowOf(motion, asked);
  });
  const swings = flows.map((flow, i) => {
    const [motion, isLast] = [turned[i]!, i === flows.length - 1];
    const isLine = isLast && (smear.way === 'path' || smear.way === 'line');
    return isLine && motion.turn !== 0 ? flowOf(motion, { way: 'as drawn', line: null, bend: smear.bend }) : flow;
  });
  const made = { steps, motions, flows, swings };
  kept = { key, steps: made };
  return made;
}

function sceneOf(work: SmearWork): { scene: SmearScene } {
  const { smear, stops } = work;
  const { steps, flows, swings } = stepsOf(work);
  const [step, flow] = [steps.at(-1)!, flows.at(-1)!];
  const own = bar(step, swings.at(-1)!);
  // Back through the drawings by the way each step went.
  const bars: { tip: Point; root: Point }[] = [own];
  for (const before of swings.toReversed()) {
    const back = (p: Point): Point => {
      const { along, across } = before.to(p);
      return before.from(along - 1, across);
    };
    const last = bars.at(-1)!;
    bars.push({ tip: back(last.tip), root: back(last.root) });
  }
  bars.reverse();
  const made = stops.map(({ traced, frames }, i): Stop => ({
    middle: i === 0 ? steps[0]!.left.middle : steps[i - 1]!.arrived.middle,
    tip: traced.tip ?? bars[i]!.tip,
    root: traced.root ?? bars[i]!.root,
    frames,
  }));
  const all = step.layers.flatMap(({ after }) => after);
  const largest = all
    .flatMap((mark) => (mark.kind === 'shape' ? [{ swatch: mark.swatch, area: smearSilhouette([mark]).area }] : []))
    .sort((a, b) => b.area - a.area)[0]?.swatch;
  const line = all.find((mark) => mark.kind === 'stroke');
  const lineSwatch = line?.kind === 'stroke' ? line.swatch : (largest ?? '');
  const settings = settingsOf(smearOf(smear.form), smear.settings);
  return {
    scene: {
      layers: step.layers,
      left: step.left,
      arrived: step.arrived,
      flow,
      stops: made,
      flows,
      line: work.line,
      settings,
      seed: smear.seed,
      rigid: new Set(smear.rigid),
      contact: work.contact,
      room: work.room,
      cycle: work.cycle,
      swatch: largest ?? lineSwatch,
      lineSwatch,
    },
  };
}

/** Marks of the subject by layer, with what else lies on its layers, each back in its own layer's space. */
export function placedBack(
  work: SmearWork,
  own: Iterable<readonly [Id, readonly Mark[]]>,
  newId: NewId,
): Map<Id, Mark[]> {
  const { rest } = stepsOf(work).steps.at(-1)!;
  const copied = (marks: readonly Mark[]) => marks.map((mark) => ({ ...mark, id: newId() }));
  return new Map(
    // A layer with nothing of the subject on it goes on as it is.
    [...own].flatMap(([layerId, marks]): [Id, Mark[]][] => {
      if (marks.length === 0) return [];
      const { under, over } = rest.get(layerId)!;
      const back = work.back[work.layers.indexOf(layerId)]!;
      return [[layerId, placed([...copied(under), ...marks, ...copied(over)], back)]];
    }),
  );
}

/** The last step of a work: its way, and the subject where it arrives. */
export function flowOfWork(work: SmearWork): Pick<SmearScene, 'flow' | 'layers' | 'arrived'> {
  const { steps, flows } = stepsOf(work);
  const { layers, arrived } = steps.at(-1)!;
  return { flow: flows.at(-1)!, layers, arrived };
}

/** The marks of a smear, in the space of the layers they are laid on; those behind in that of the first layer. */
export function computeSmear(work: SmearWork, newId: NewId): Smeared {
  const { scene } = sceneOf(work);
  if (scene.swatch === '') return { own: new Map(), behind: [] };
  const { own, behind } = smearOf(work.smear.form).draw(scene, newId);
  return { own: placedBack(work, own, newId), behind: behind.map((marks) => placed(marks, work.back[0]!)) };
}

/** How a subject goes in its last step, and the area it covers where it arrives, px². */
export interface Judged extends StepSpeed {
  readonly area: number;
}

export function judged(work: SmearWork): Judged {
  const { steps, flows } = stepsOf(work);
  const { left, arrived } = steps.at(-1)!;
  return { ...speedOf(flows.at(-1)!, left, arrived), area: arrived.area };
}

/** The way of a work's last step, for showing it: places of the middle from where it left to where it arrives. */
export function wayShown(work: SmearWork): Point[] {
  const { flows } = stepsOf(work);
  const flow = flows.at(-1)!;
  return Array.from({ length: 25 }, (_, k) => apply(work.back[0]!, flow.from(k / 24 - 1, 0)));
}
