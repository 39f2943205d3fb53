/** Rows of smears: a stretch against a plain transform, a swept body against a union, the fast ones against their single smears. */
import type { Mark, Shape } from '@tallow/core/document';
import { fitRing, IDENTITY, unitedPolygons, type Matrix, type Pair, seededIds } from '@tallow/core/geometry';
import { outlined, transformed, warpedMark } from '@tallow/core/marks';
import { drawingOf } from '@tallow/core/starters';
import {
  computeSmear,
  flowBetween,
  stretchingOf,
  sweptOutlines,
  warpOf,
  smearSilhouette,
  type SmearWork,
} from '@tallow/core/smears';
import { against, sideBySide, timed, timeRow, type Row } from './measure.ts';

const newId = seededIds(31);
/** ms one preview of a drag may take: 15 a second. */
const PREVIEW_MS = 1000 / 15;

const blob = (cx: number, cy: number, size: number, points: number): Pair[] =>
  Array.from({ length: points }, (_, i): Pair => {
    const turn = (i / points) * 2 * Math.PI;
    const reach = size * (1 + 0.12 * Math.cos(5 * turn));
    return [cx + reach * Math.cos(turn), cy + reach * Math.sin(turn)];
  });

/** Forty marks: twenty forms with a line round each. */
function subject(): Mark[] {
  return Array.from({ length: 20 }, (_, i): Mark[] => {
    const [x, y] = [(i % 5) * 44 - 88, Math.floor(i / 5) * 44 - 66];
    const shape: Shape = {
      kind: 'shape',
      id: newId(),
      swatch: 'body',
      rings: [fitRing(blob(x, y, 20, 60), 0.2)],
      rule: 'evenodd',
      opacity: 1,
    };
    return [shape, ...outlined(shape, 3, 'line', newId)];
  }).flat();
}

const at = (marks: readonly Mark[], matrix: Matrix): Mark[] =>
  marks.map((mark) => ({ ...transformed(mark, matrix), id: newId() }));

function workOf(marks: readonly Mark[], places: readonly Matrix[], settings: Record<string, number> = {}): SmearWork {
  return {
    layers: ['all'],
    stops: places.map((matrix) => ({
      drawings: [drawingOf('', at(marks, matrix))],
      matrices: [IDENTITY],
      frames: 1,
      traced: { tip: null, root: null },
    })),
    smear: { form: 'stretch', piece: null, marks: [], rigid: [], way: 'straight', bend: 0.4, settings, seed: 1 },
    line: null,
    contact: null,
    room: 0,
    cycle: false,
    back: [IDENTITY],
  };
}

export async function smearRows(): Promise<Row[]> {
  const marks = subject();
  const moved: Matrix = [1, 0, 0, 1, 520, 60];
  const arrived = smearSilhouette(at(marks, moved));
  const flow = flowBetween({ x: 0, y: 0 }, arrived.middle, 0.4);
  const settings = stretchingOf({ amount: 80, spread: 40, volume: 100, thins: 25 });
  const warp = warpOf({ flow, arrived, contact: null }, settings);
  const there = at(marks, moved);
  const turn: Matrix = [0.98, 0.17, -0.17, 0.98, 12, 7];
  const outline = blob(400, 0, 90, 300);
  const swept = flowBetween({ x: 0, y: 400 }, { x: 400, y: 0 }, Math.PI / 2);
  const whole = { amount: 1, tapers: 0, hollow: 0, strands: 0, torn: 0, seed: 1 };
  const poses = Array.from({ length: 32 }, (_, k) =>
    outline.map(([x, y]): Pair => {
      const { along, across } = swept.to({ x, y });
      const p = swept.from(along - k / 31, across);
      return [p.x, p.y];
    }),
  );
  // While a slider moves the subject stays what it is: only the last part is done anew.
  const work = workOf(marks, [IDENTITY, moved]);
  let amount = 20;
  const preview = () => {
    amount = amount >= 100 ? 20 : amount + 1;
    return computeSmear({ ...work, smear: { ...work.smear, settings: { amount } } }, newId);
  };
  preview();
  const row = Array.from({ length: 25 }, (_, i): Matrix => [1, 0, 0, 1, i * 180, (i % 3) * 40]);
  const works = row.slice(1).map((matrix, i) => workOf(marks.slice(0, 8), [row[i]!, matrix]));
  return [
    timeRow(
      'a stretch of 40 marks',
      'a plain transform of them',
      4,
      await sideBySide(
        31,
        () => there.map((mark) => warpedMark(mark, warp)),
        () => there.map((mark) => transformed(mark, turn)),
      ),
    ),
    against('a preview of it while a slider is dragged', timed(15, preview), PREVIEW_MS),
    timeRow(
      'the body of a 300-point outline over a quarter turn',
      'one union of 32 such outlines',
      1,
      await sideBySide(
        15,
        () => sweptOutlines(swept, [outline], whole),
        () => unitedPolygons(poses),
      ),
    ),
    timeRow(
      'smearing the fast ones over 24 drawings',
      'its single smears',
      1.2,
      await sideBySide(
        3,
        async () => {
          for (const each of works) {
            computeSmear(each, newId);
            await Promise.resolve();
          }
        },
        () => works.map((each) => computeSmear(workCopy(each), newId)),
      ),
    ),
  ];
}

/** The same work with drawings of its own, as one that comes from the page by itself. */
const workCopy = (work: SmearWork): SmearWork => ({
  ...work,
  stops: work.stops.map((stop) => ({ ...stop, drawings: stop.drawings.map((drawing) => drawing && { ...drawing }) })),
});
