/** The lights of a frame: where each is, how strong, and what it falls on. */
import {
  find,
  findAll,
  shotOf,
  valueAt,
  type Id,
  type Light,
  type Plane,
  type ShotDocument,
} from '../document/index.ts';
import { anchorOf, depthMatrix, lyingOn, planeOf, type HowLaid, type Occurrence } from '../assembly/index.ts';
import {
  apply,
  EMPTY_BOX,
  IDENTITY,
  isEmpty,
  project,
  scaleOf,
  union,
  type Matrix,
  type Point,
} from '../geometry/index.ts';
import { roundOf, shownOn, timedLayers } from '../timing/index.ts';
import { brightnessOf, smoothedAt } from './brightness.ts';
import { drawingBox } from './marks.ts';
import { paintsOn, plainOf } from './paint.ts';

/** A light as it falls on one thing. */
export interface Falling {
  readonly id: Id;
  /** Its middle, px of the shot, and how far it reaches. */
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly colour: string;
  /** 1 is its colour in full. */
  readonly strength: number;
  readonly dies: number;
  readonly side: number;
  readonly blend: Light['blend'];
}

/** A light as it shines on a frame. */
export interface Shining extends Falling {
  readonly light: Light;
  /** Of the plane it is on. */
  readonly depth: number;
}

/** Less than this of a light is not seen: half a level of 255. */
const UNSEEN = 1 / 510;

/** The middle of what a use shows of what moves in it, element space; its anchor where it shows nothing. */
function middleOf(doc: ShotDocument, { element, placement, moment, length }: Occurrence): Point {
  const seen = timedLayers(doc, element).filter(
    ({ layer }) => !placement.layers || placement.layers.includes(layer.id),
  );
  const moving = seen.filter(({ list }) => list.period !== 1);
  const box = (moving.length > 0 ? moving : seen)
    .flatMap((timed) => find(doc, 'drawing', shownOn(timed, moment.frame, length)?.drawingId) ?? [])
    .map(drawingBox)
    .reduce(union, EMPTY_BOX);
  if (isEmpty(box)) return anchorOf(placement, element);
  return { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 };
}

/** The colour of a swatch as a light, wherever it is. */
export const colourIn = (doc: ShotDocument): ((swatch: Id) => string) => {
  const paints = paintsOn(doc, undefined, { axis: null, matrix: IDENTITY, picture: shotOf(doc) });
  return (swatch) => plainOf(paints(swatch));
};

/** Where a light stands and what its time is counted in: px of the shot, a frame, frames of a turn or null, and from its plane's px to the shot's. */
interface Stand {
  readonly middle: Point;
  readonly frame: number;
  readonly round: number | null;
  readonly plane: Plane;
  readonly outward: Matrix;
  readonly use: Occurrence | null;
}

function standOf(
  doc: ShotDocument,
  light: Light,
  shotFrame: number,
  uses: ReadonlyMap<Id, Occurrence>,
  how: HowLaid,
): Stand | null {
  const use = light.sourceId === null ? null : (uses.get(light.sourceId) ?? null);
  const plane = light.sourceId === null ? find(doc, 'plane', light.planeId) : planeOf(doc, light.sourceId);
  if (!plane?.visible || (light.sourceId !== null && !use)) return null;
  const outward = depthMatrix(doc, plane.depth, shotFrame, how);
  if (!use) return { middle: apply(outward, { x: 0, y: 0 }), frame: shotFrame, round: null, plane, outward, use };
  const own = light.at === 'anchor' ? anchorOf(use.placement, use.element) : middleOf(doc, use);
  return {
    middle: apply(use.matrix, use.bend ? project(use.bend, own) : own),
    frame: use.moment.frame,
    round: roundOf(use.element, use.length),
    plane,
    outward,
    use,
  };
}

/** All lights that shine on a frame of the shot. A light of a use shines while that is seen. */
export function lightsOn(doc: ShotDocument, shotFrame: number, how: HowLaid = {}): Shining[] {
  const lights = findAll(doc, 'light', shotOf(doc).lights).filter(({ visible }) => visible);
  if (lights.length === 0) return [];
  const colourOf = colourIn(doc);
  const uses = new Map(
    lyingOn(doc, shotFrame, how).flatMap((each) => ('use' in each ? [[each.use.placement.id, each.use] as const] : [])),
  );
  return lights.flatMap((light): Shining[] => {
    const stand = standOf(doc, light, shotFrame, uses, how);
    if (!stand) return [];
    const { middle, frame, round, plane, outward, use } = stand;
    const at = (value: Light['x']): number => valueAt(value, frame, round);
    const off = apply([outward[0], outward[1], outward[2], outward[3], 0, 0], { x: at(light.x), y: at(light.y) });
    const bright =
      use && light.follows > 0
        ? smoothedAt(brightnessOf(doc, use.element, use.placement.layers, colourOf), frame, light.smooth, round)
        : 1;
    const strength = at(light.strength) * (1 - light.follows + light.follows * bright);
    if (strength < UNSEEN) return [];
    return [
      {
        id: light.id,
        x: middle.x + off.x,
        y: middle.y + off.y,
        radius: Math.max(1, at(light.radius) * scaleOf(outward)),
        colour: colourOf(light.swatch),
        strength,
        dies: light.dies,
        side: light.side,
        blend: light.blend,
        light,
        depth: plane.depth,
      },
    ];
  });
}

/** What is left of a light so far away in depth: half of it at its reach. @param away px of depth. */
export const weakened = (away: number, reach: number): number => 1 / (1 + (away / reach) * (away / reach));

/** The lights that fall on one thing. @param plane it is on; null for what lies behind all planes, as deep as the picture plane. */
export function fallingOn(
  shining: readonly Shining[],
  thing: { readonly kind: 'placement' | 'plate'; readonly id: Id },
  plane: Pick<Plane, 'id' | 'depth'> | null,
): Falling[] {
  return shining.flatMap(({ light, depth, ...falling }): Falling[] => {
    const { fallsOn } = light;
    const chosen = fallsOn
      ? fallsOn[thing.kind === 'plate' ? 'plates' : 'placements'].includes(thing.id) ||
        (plane !== null && fallsOn.planes.includes(plane.id))
      : light.sourceId !== thing.id;
    const strength = falling.strength * weakened((plane?.depth ?? 0) - depth, light.reach);
    return chosen && strength >= UNSEEN ? [{ ...falling, strength }] : [];
  });
}
