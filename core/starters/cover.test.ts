import fc from 'fast-check';
import { doubleAreaOf, isInside, ringPoints } from '../geometry/index.ts';
import { settingsOf } from '../controls/index.ts';
import { isLine, layAll, sceneFor, sizedFor, starterOf, type LaidFrame, type Scene } from './index.ts';

const COVER = starterOf('cover');
const scene = (settings: Record<string, number>, seed = 3): Scene => ({
  ...sceneFor(COVER, COVER.presets[0]!, seed),
  settings: settingsOf(COVER, settings),
});
const FRAME = { width: 1920, height: 1080 };
/** Whether a place of the frame is covered: by an odd number of rings, as fills go. */
function isCovered(frame: LaidFrame, x: number, y: number): boolean {
  return (frame['body'] ?? []).some(
    (mark) => !isLine(mark) && mark.rings.filter((ring) => isInside(ringPoints(ring, 8), { x, y })).length % 2 === 1,
  );
}
/** Places over all of the frame, its corners among them. */
const PLACES = Array.from({ length: 9 * 7 }, (_, i) => ({
  x: ((i % 9) / 8 - 0.5) * FRAME.width * 0.999,
  y: (Math.floor(i / 9) / 6 - 0.5) * FRAME.height * 0.999,
}));
const share = (frame: LaidFrame): number => PLACES.filter(({ x, y }) => isCovered(frame, x, y)).length / PLACES.length;

test('it grows until all of the frame is covered, and uncovers it the other way', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(0, 1),
      fc.constantFrom(0, 1),
      fc.integer({ min: 0, max: 40 }),
      fc.nat(),
      (way, form, wobble, seed) => {
        const frames = layAll(COVER, scene({ way, form, wobble }, seed))!;
        const covered = frames.map(share);
        const ordered = way === 0 ? covered : [...covered].reverse();
        expect(ordered.at(-1)).toBe(1);
        expect(ordered[0]).toBeLessThan(0.5);
        // Waves run round it, so that a place near the edge may be free again for a moment.
        for (let i = 1; i < ordered.length; i++) expect(ordered[i]! + 0.07).toBeGreaterThanOrEqual(ordered[i - 1]!);
      },
    ),
    { numRuns: 25 },
  );
});

test('it is made for the picture it is laid in, however that is shaped', () => {
  for (const [width, height] of [
    [1920, 1080],
    [640, 360],
    [1080, 1920],
    [1440, 1080],
  ] as const) {
    // prettier-ignore
    const picture = { left: -width / 2, top: -height / 2, right: width / 2, bottom: height / 2 };
    const settings = sizedFor(COVER, {}, { picture });
    expect(settings).toMatchObject({ width, height });
    const last = layAll(COVER, { ...scene({}), settings })!.at(-1)!;
    for (const [x, y] of [
      [1, 1],
      [-1, 1],
      [1, -1],
      [-1, -1],
    ] as const)
      // prettier-ignore
      expect(isCovered(last, (x * width) / 2 - x, (y * height) / 2 - y)).toBe(true);
  }
});

test('from the middle out the corners are covered last; closing in, the middle is', () => {
  const nearly = layAll(COVER, scene({ form: 0, wobble: 0 }))!.at(-2)!;
  expect(isCovered(nearly, 959, 0)).toBe(true);
  expect(isCovered(nearly, 959, 539)).toBe(false);
  const closing = layAll(COVER, scene({ form: 1 }))!.at(-3)!;
  expect(isCovered(closing, 0, 0)).toBe(false);
  expect(isCovered(closing, 959, 539)).toBe(true);
});

test('its area grows on every drawing, by no more than six tenths of the frame at a time', () => {
  const frames = layAll(COVER, scene({}))!;
  const areas = frames.map((frame) =>
    (frame['body'] ?? []).reduce(
      (sum, mark) => sum + (isLine(mark) ? 0 : Math.abs(doubleAreaOf(ringPoints(mark.rings[0]!, 6))) / 2),
      0,
    ),
  );
  for (let i = 1; i < areas.length - 1; i++) {
    expect(areas[i]!).toBeGreaterThan(areas[i - 1]!);
    expect(areas[i]! - areas[i - 1]!).toBeLessThan(FRAME.width * FRAME.height * 0.6);
  }
});
