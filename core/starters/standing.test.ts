import { EMPTY_BOX, union, type Box, type Point } from '../geometry/index.ts';
import {
  fitted,
  laidBox,
  sceneFor,
  standingPlace,
  STARTERS,
  starterOf,
  sizedFor,
  type StandingGround,
  type Preset,
  type StarterKind,
} from './index.ts';
import type { Settings } from '../controls/index.ts';

/** The picture of a shot whose element stands in its middle. */
const groundOf = (width: number, height: number, more: Partial<StandingGround> = {}): StandingGround => ({
  picture: { left: -width / 2, top: -height / 2, right: width / 2, bottom: height / 2 },
  bases: [],
  anchor: null,
  floors: [],
  ...more,
});

/** What all drawings of a kind take up in the picture. */
function takenBy(kind: StarterKind, preset: Preset, settings: Settings, at: Point): Box {
  const scene = sceneFor(kind, { ...preset, settings }, 7);
  let box = EMPTY_BOX;
  for (let i = 0; i < scene.starts.length; i++) {
    const frame = kind.draw(scene, i);
    for (const { key, hidden } of kind.outputs) if (!hidden) box = union(box, laidBox(frame[key] ?? []));
  }
  return { left: box.left + at.x, right: box.right + at.x, top: box.top + at.y, bottom: box.bottom + at.y };
}

const placedIn = (kind: StarterKind, preset: Preset, ground: StandingGround, pen: Point | null) => {
  const at = standingPlace(kind, ground, pen, 40);
  const sceneWith = (settings: Settings) => sceneFor(kind, { ...preset, settings }, 7);
  return { at, settings: fitted(kind, preset.settings, ground, at, pen !== null, sceneWith) };
};

/** px that one drawing in between may reach farther than those that were looked at. */
const OVER = 6;

describe.each([
  [1920, 1080],
  [960, 540],
  [640, 360],
])('in a picture of %i by %i', (width, height) => {
  const ground = groundOf(width, height);
  const kinds = STARTERS.filter(({ stands }) => stands !== 'fills');
  test.each(kinds.map((kind) => [kind.name, kind] as const))(
    '%s lands in it, and nothing of it runs out',
    (_, kind) => {
      const preset = kind.presets[0]!;
      const { at, settings } = placedIn(kind, preset, ground, null);
      const taken = takenBy(kind, preset, settings, at);
      const { picture } = ground;
      expect(taken.left).toBeGreaterThan(picture.left - OVER);
      expect(taken.right).toBeLessThan(picture.right + OVER);
      expect(taken.bottom).toBeLessThan(picture.bottom + OVER);
      // A bolt begins at the upper edge, and is crooked there.
      expect(taken.top).toBeGreaterThan(picture.top - (kind.stands === 'edges' ? height / 8 : OVER));
      // It is there to be seen, too.
      expect(Math.max((taken.right - taken.left) / width, (taken.bottom - taken.top) / height)).toBeGreaterThan(0.1);
    },
  );
});

test('lengths grow with the picture, counts and angles stay', () => {
  const fire = starterOf('fire');
  const preset = sizedFor(fire, {}, groundOf(1920, 1080));
  const half = sizedFor(fire, {}, groundOf(960, 540));
  for (const { key, unit, min } of fire.controls)
    expect(half[key]).toBeCloseTo(unit === 'px' ? Math.max(min, preset[key]! / 2) : preset[key]!, 6);
});

describe('where it stands', () => {
  const fire = starterOf('fire');
  const ground = groundOf(1000, 600);
  test('a fire stands on the floor by itself: low in the picture, on a level guide, on a base, at the anchor', () => {
    const anchor = { x: 40, y: 50 };
    expect(standingPlace(fire, ground, null)).toEqual({ x: 0, y: -300 + 0.88 * 600 });
    expect(standingPlace(fire, { ...ground, floors: [-200, 180] }, null)).toEqual({ x: 0, y: 180 });
    expect(standingPlace(fire, { ...ground, anchor }, null)).toEqual(anchor);
    expect(standingPlace(fire, { ...ground, anchor, bases: [{ x: 9, y: 8 }] }, null)).toEqual({ x: 9, y: 8 });
  });
  test('pressed somewhere it stands there, on the base or the floor under the pen where one is near', () => {
    const pen = { x: 10, y: 20 };
    expect(standingPlace(fire, ground, pen, 30)).toEqual(pen);
    expect(standingPlace(fire, { ...ground, floors: [60] }, pen, 30)).toEqual({ x: 10, y: 60 });
    expect(standingPlace(fire, { ...ground, floors: [280] }, pen, 30)).toEqual(pen);
    expect(standingPlace(fire, { ...ground, bases: [{ x: 30, y: 30 }] }, pen, 30)).toEqual({ x: 30, y: 30 });
  });
  test('a burst stands at the pen, a bolt begins at the upper edge over it and ends on the floor', () => {
    const [burst, bolt] = [starterOf('burst'), starterOf('bolt')];
    const pen = { x: 10, y: 20 };
    expect(standingPlace(burst, { ...ground, floors: [60] }, pen)).toEqual(pen);
    expect(standingPlace(bolt, ground, pen)).toEqual({ x: 10, y: -300 });
    const { settings } = placedIn(bolt, bolt.presets[0]!, { ...ground, floors: [200] }, pen);
    expect(settings['length']! * -Math.sin((settings['direction']! / 180) * Math.PI)).toBeCloseTo(500, 0);
  });
  test('near an edge it is made smaller only so far: where it stands was asked for', () => {
    const burst = starterOf('burst');
    const { settings } = placedIn(burst, burst.presets[0]!, ground, { x: 490, y: 0 });
    expect(settings['size']!).toBeCloseTo(0.6 * sizedFor(burst, {}, ground)['size']!, 6);
  });
});
