/**
 * The body a form leaves when it is moved along its way: all places it has been at. In the coordinates of the way that is the form
 * drawn out along one axis, whose outline is that of both ends and of every side swept between them; so there is nothing to
 * sample, and no scallops. Tapering, hollowing and tearing are done there too, and follow every bend by themselves.
 */
import type { Mark, NewId, Ring, Shape } from '../document/index.ts';
import {
  fitRing,
  polygonsWith,
  polygonsWithout,
  seededRandom,
  unitedPolygons,
  type Pair,
  type Polygon,
} from '../geometry/index.ts';
import { outlined } from '../marks/index.ts';
import type { Flow } from './flow.ts';
import { NOTHING_SMEARED, type Smeared, type SmearScene } from './scene.ts';
import { denser, enclosedBy, smearSilhouette } from './silhouette.ts';

/** px a ring may leave what it is fitted to. */
const TOLERANCE = 0.2;

/** What outlines cover that are drawn out along x. @param by px, below 0 backwards. */
function drawnOut(outlines: readonly Polygon[], by: number): Pair[][] {
  const sides = outlines.flatMap((outline) =>
    outline.flatMap(([ax, ay], i): Pair[][] => {
      const [bx, by_] = outline[(i + 1) % outline.length]!;
      return ay === by_
        ? []
        : [
            [
              [ax, ay],
              [bx, by_],
              [bx + by, by_],
              [ax + by, ay],
            ],
          ];
    }),
  );
  const moved = outlines.map((outline) => outline.map(([x, y]): Pair => [x + by, y]));
  return unitedPolygons([...outlines, ...moved, ...sides]);
}

/** How a body looks behind the form. */
export interface BodyForm {
  /** How far back, shares of the way. */
  readonly amount: number;
  /** How much narrower its end is, 0 to 1. */
  readonly tapers: number;
  readonly hollow: number;
  readonly strands: number;
  readonly torn: number;
  readonly seed: number;
  /** px of the line around it. Slits narrower than that would close again, so there are fewer strands then. */
  readonly line?: number;
}

/** A lane of a strand holds its slit, a third of it at the least, and that has to hold a line on both sides. */
const LANE_OF_LINE = 5;

/** Outlines in the coordinates of a way, both in px. */
const inWay = (flow: Flow, outlines: readonly Polygon[]): Pair[][] =>
  outlines.map((outline) =>
    outline.map(([x, y]): Pair => {
      const { along, across } = flow.to({ x, y });
      return [along * flow.length, across];
    }),
  );

const spanOf = (outlines: readonly Polygon[], axis: 0 | 1): [number, number] =>
  outlines
    .flat()
    .reduce<[number, number]>(
      (span, p) => [Math.min(span[0], p[axis]), Math.max(span[1], p[axis])],
      [Infinity, -Infinity],
    );

/** Slits and wedges torn from the trailing end, in the coordinates of the way. */
function tears(
  [back, front]: readonly [number, number],
  [top, bottom]: readonly [number, number],
  form: BodyForm,
): Pair[][] {
  const random = seededRandom(form.seed);
  const [long, wide] = [front - back, bottom - top];
  const fit = form.line ? Math.max(0, Math.floor(wide / (LANE_OF_LINE * form.line)) - 1) : Infinity;
  const strands = Math.min(form.strands, fit);
  const lane = wide / (strands + 1);
  return Array.from({ length: strands }, (_, i) => {
    const middle = top + lane * (i + 1 + 0.5 * (random() - 0.5));
    const depth = long * (0.35 + 0.45 * random());
    const half = lane * (0.16 + 0.2 * random());
    const steps = 9;
    const side = (sign: number) =>
      Array.from({ length: steps }, (__, k): Pair => {
        const t = k / (steps - 1);
        const jag = form.torn * lane * 0.22 * (random() - 0.5);
        return [back - 4 + (depth + 4) * t, middle + sign * half * (1 - t) ** 0.7 + (t < 1 ? jag : 0)];
      });
    return [...side(1), ...side(-1).reverse()];
  });
}

/** The body some outlines leave behind on a way, as rings. @param outlines where they arrive. @param also outlines it holds besides, as where it left. */
function sweptBody(flow: Flow, outlines: readonly Polygon[], form: BodyForm, also: readonly Polygon[] = []): Ring[] {
  return sweptOutlines(flow, outlines, form, also).map((outline) =>
    fitRing(
      outline.map((p): Pair => [...p]),
      TOLERANCE,
    ),
  );
}

/** The same as outlines with straight sides. */
export function sweptOutlines(
  flow: Flow,
  outlines: readonly Polygon[],
  form: BodyForm,
  also: readonly Polygon[] = [],
): Pair[][] {
  if (outlines.length === 0 || flow.length < 1e-6) return [];
  const here = inWay(flow, denser(outlines, 6));
  const gone = form.amount * flow.length;
  let body = drawnOut(here, -gone);
  const [trailing] = spanOf(here, 0);
  const back = trailing - gone;
  const [top, bottom] = spanOf(here, 1);
  if (form.hollow > 0) {
    // A rim as wide all round stays; the form itself stays whole in front.
    const inner = here.map((outline) => {
      const [left, right] = spanOf([outline], 0);
      const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
      return outline.map(([x, y]): Pair => [cx + (x - cx) * form.hollow, cy + (y - cy) * form.hollow]);
    });
    body = polygonsWith(polygonsWithout(body, drawnOut(inner, -gone)), here);
  }
  if (form.strands > 0) body = polygonsWithout(body, tears([back, trailing], [top, bottom], form));
  const middle = (top + bottom) / 2;
  const narrow = (x: number): number => {
    if (form.tapers === 0 || gone === 0 || x >= trailing) return 1;
    const t = Math.min(1, (trailing - x) / gone);
    return 1 - form.tapers * t * t * (3 - 2 * t);
  };
  const placed = denser(body, 6).map((outline) =>
    outline.map(([x, y]): Pair => {
      const p = flow.from(x / flow.length, middle + (y - middle) * narrow(x));
      return [p.x, p.y];
    }),
  );
  return also.length > 0 ? polygonsWith(placed, also) : placed;
}

/** px from one sample of a body's line to the next. */
const LINE_STEP = 2;

/** What of the drawing that was left has a shape's colour. */
const gone = (before: readonly Mark[], { swatch }: Shape): readonly Polygon[] =>
  smearSilhouette(before.filter((mark) => mark.kind === 'shape' && mark.swatch === swatch)).outlines;

/** px of the widest line around a body: lines of layers that have fills are moved with those, not drawn round. */
const widestLine = (layers: SmearScene['layers']): number =>
  Math.max(
    0,
    ...layers.flatMap(({ after }) =>
      after.some(({ kind }) => kind === 'shape')
        ? []
        : after.map((mark) => (mark.kind === 'stroke' && !mark.unseen ? mark.brush.width : 0)),
    ),
  );

/** What a stretch leaves of each layer: fills as bodies in their own colours, lines round the whole body. */
export function leftBody(scene: SmearScene, newId: NewId): Smeared {
  const { flow, layers, arrived, settings, seed, rigid } = scene;
  if (arrived.area === 0) return NOTHING_SMEARED;
  const form: BodyForm = {
    amount: settings['amount']! / 100,
    tapers: settings['thins']! / 100,
    hollow: settings['hollow']! / 100,
    strands: settings['strands']!,
    torn: settings['torn']! / 100,
    seed,
    line: widestLine(layers),
  };
  // A body that is whole holds the form where it left as well, whatever that looked like.
  const isWhole = form.tapers === 0 && form.hollow === 0 && form.strands === 0 && form.amount === 1;
  const own = layers.map(({ layerId, before, after }): [string, Mark[]] => {
    const hasShapes = after.some(({ kind }) => kind === 'shape');
    const round = (): Mark[] => {
      const line = after.find((mark) => mark.kind === 'stroke' && !mark.unseen);
      if (line?.kind !== 'stroke') return [];
      const [here, there] = [enclosedBy(after), enclosedBy(before)];
      const rings = sweptBody(flow, here.length > 0 ? here : arrived.outlines, form, isWhole ? there : []);
      const shape = { kind: 'shape', id: '', swatch: line.swatch, rings, rule: 'evenodd', opacity: 1 } as const;
      return outlined(shape, line.brush.width, line.swatch, newId, LINE_STEP).map((stroke) => ({
        ...stroke,
        brush: { ...line.brush, pressure: false },
      }));
    };
    const marks = after.flatMap((mark): Mark[] => {
      if (rigid.has(mark.id)) return [{ ...mark, id: newId() }];
      if (mark.kind !== 'shape') return hasShapes ? [{ ...mark, id: newId() }] : [];
      const rings = sweptBody(flow, smearSilhouette([mark]).outlines, form, isWhole ? gone(before, mark) : []);
      return rings.length > 0 ? [{ ...mark, id: newId(), rings, rule: 'evenodd' }] : [];
    });
    return [layerId, hasShapes ? marks : [...round(), ...marks]];
  });
  return { own: new Map(own), behind: [] };
}
