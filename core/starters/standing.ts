/** Where a starter stands in a picture, and how large it is there: settings are made for a picture 1080 px high. */
import { EMPTY_BOX, union, type Box, type Point } from '../geometry/index.ts';
import { laidBox } from './marks.ts';
import { settingsOf, type Settings } from '../controls/index.ts';
import { type Scene, type StarterKind } from './starter.ts';

/** px a picture is wide and high that settings are made for. */
const MADE_FOR = { width: 1920, height: 1080 };
/** Share of the picture's height that floors lie at where none is marked. */
const FLOOR = 0.88;
/** Share of the picture's height within which a floor draws what is put near it. */
const NEAR_FLOOR = 0.15;
/** Drawings that are looked at to see how much room it takes. */
const SAMPLES = 6;
/** Of the room, what is left free: other drawings may reach a little farther. */
const SLACK = 0.94;
/** How much smaller than the picture asks for it is made at most, where it is put near an edge. */
const MIN_SHARE = 0.6;

/** What a starter can stand on, element space. */
export interface StandingGround {
  /** The picture. */
  readonly picture: Box;
  /** Where parts grow from. */
  readonly bases: readonly Point[];
  /** Where the element grows from, if that was set. */
  readonly anchor: Point | null;
  /** Heights of level guides. */
  readonly floors: readonly number[];
}

const nearest = (list: readonly number[], to: number): number | undefined =>
  [...list].sort((a, b) => Math.abs(a - to) - Math.abs(b - to))[0];

/**
 * Where a starter stands.
 * @param pen where the pen was pressed, element space; null for where it belongs by itself. @param reach px within which a base is meant.
 */
export function standingPlace(
  { stands }: Pick<StarterKind, 'stands'>,
  ground: StandingGround,
  pen: Point | null,
  reach = 0,
): Point {
  const { left, right, top, bottom } = ground.picture;
  const height = bottom - top;
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
  if (stands === 'edges') return { x: pen?.x ?? ground.anchor?.x ?? middle.x, y: top };
  if (pen) {
    if (stands !== 'floor') return pen;
    const base = ground.bases.find(({ x, y }) => Math.hypot(x - pen.x, y - pen.y) <= reach);
    if (base) return { x: base.x, y: base.y };
    const floor = nearest(ground.floors, pen.y);
    return floor !== undefined && Math.abs(floor - pen.y) <= NEAR_FLOOR * height ? { x: pen.x, y: floor } : pen;
  }
  const [base] = ground.bases;
  if (stands === 'floor' && base) return { x: base.x, y: base.y };
  if (ground.anchor) return ground.anchor;
  if (stands !== 'floor') return middle;
  const marked = ground.floors.filter((y) => y > middle.y && y < bottom);
  return { x: middle.x, y: marked.length > 0 ? Math.max(...marked) : top + FLOOR * height };
}

/** Settings with every length times a factor, within their ranges. */
function scaled(kind: StarterKind, settings: Settings, factor: number): Settings {
  const lengths = kind.controls.flatMap(({ key, unit }) =>
    unit === 'px' ? [[key, (settings[key] ?? 0) * factor] as const] : [],
  );
  return settingsOf(kind, { ...settings, ...Object.fromEntries(lengths) });
}

/** Settings that were made for a picture 1080 px high, for one of another size. */
export function sizedFor(
  kind: StarterKind,
  settings: Settings,
  { picture }: Pick<StandingGround, 'picture'>,
): Settings {
  const [width, height] = [picture.right - picture.left, picture.bottom - picture.top];
  const sized = scaled(kind, settingsOf(kind, settings), Math.min(width / MADE_FOR.width, height / MADE_FOR.height));
  return kind.frame ? settingsOf(kind, { ...sized, [kind.frame.across]: width, [kind.frame.down]: height }) : sized;
}

/** The room that what is seen of a starter takes, about where it stands. */
function standingRoom(kind: StarterKind, scene: Scene): Box {
  const count = scene.starts.length;
  const indices = new Set(
    Array.from({ length: Math.min(SAMPLES, count) }, (_, i) => Math.floor((i * count) / Math.min(SAMPLES, count))),
  );
  indices.add(count - 1);
  let box = EMPTY_BOX;
  for (const index of indices) {
    const frame = kind.draw(scene, index);
    for (const { key, hidden } of kind.outputs) if (!hidden) box = union(box, laidBox(frame[key] ?? []));
  }
  return box;
}

/**
 * Settings with which a starter fits into the picture from where it stands: sized for the picture, and smaller where it
 * would run out. Bolts reach from the top to the floor; what fills the picture is only sized.
 * @param at where it stands, element space. @param asked where the pen was pressed: there it is made smaller only so far.
 * @param sceneWith the scene with other settings.
 */
export function fitted(
  kind: StarterKind,
  settings: Settings,
  ground: StandingGround,
  at: Point,
  asked: boolean,
  sceneWith: (settings: Settings) => Scene,
): Settings {
  const { picture } = ground;
  const sized = sizedFor(kind, settings, ground);
  if (kind.stands === 'fills') return sized;
  if (kind.stands === 'edges') return acrossPicture(kind, sized, ground, at);
  let now = sized;
  let share = 1;
  for (let round = 0; round < 3; round++) {
    const room = standingRoom(kind, sceneWith(now));
    const parts = [
      [picture.right - at.x, room.right],
      [at.x - picture.left, -room.left],
      [picture.bottom - at.y, room.bottom],
      [at.y - picture.top, -room.top],
    ] as const;
    const min = asked ? MIN_SHARE : 0;
    const fits = Math.min(
      ...parts.map(([there, needed]) => (needed <= 0 ? Infinity : (SLACK * Math.max(0, there)) / needed)),
    );
    if (fits >= 1) return now;
    share = Math.max(min, share * fits);
    now = scaled(kind, sized, share);
    if (share === min) return now;
  }
  return now;
}

/** A bolt from the top of the picture down to its floor. */
function acrossPicture(
  kind: StarterKind,
  settings: Settings,
  { picture, floors }: StandingGround,
  at: Point,
): Settings {
  const low = floors.filter((y) => y > at.y && y < picture.bottom);
  const floor = low.length > 0 ? Math.max(...low) : picture.top + SLACK * (picture.bottom - picture.top);
  const angle = ((settings['direction'] ?? 270) / 180) * Math.PI;
  const down = -Math.sin(angle);
  // A bolt that is set to go up or level is left as it is.
  return down < 0.2 || settings['length'] === undefined
    ? settings
    : settingsOf(kind, { ...settings, length: (floor - at.y) / down });
}
