/**
 * Cover: a wobbling shape that grows until all of the frame is covered, from its middle out (the corners last) or closing round a
 * hole that shrinks to nothing; or the other way, uncovering it.
 */
import { cosineTurn, fitRing, mix, polygonRing, seededRandom, sineTurn, type Pair } from '../geometry/index.ts';
import type { Ring } from '../document/index.ts';
import { choice, control } from '../controls/index.ts';
import { ageOf, starterFill, type LaidFrame, type Scene, type StarterKind } from './starter.ts';

/** Points round the edge, and how many waves of how large a part of the wobble run round it. */
const POINTS = 72;
const WAVES = [
  { waves: 2, part: 0.34 },
  { waves: 3, part: 0.3 },
  { waves: 5, part: 0.22 },
  { waves: 8, part: 0.14 },
] as const;
/** How far from the middle the frame is held to lie on the last drawing: its corners, and a little more. */
const FULL = 1.04;

/** The edge at an age: how far from the middle, and where its waves have run. */
function edge({ settings, seed }: Scene, radius: number, age: number): Ring {
  const random = seededRandom(seed);
  const waves = WAVES.map(({ waves: count, part }) => ({
    count,
    part,
    // Turns they begin at, and run over the whole time, this way or that.
    from: random(),
    by: mix(-1, 1, random()) * (settings['churn']! / 100),
  }));
  const wobble = settings['wobble']! / 100;
  const points = Array.from({ length: POINTS }, (_, i): Pair => {
    const turn = i / POINTS;
    const sway = waves.reduce(
      (sum, { count, part, from, by }) => sum + part * sineTurn(count * turn + from + by * age),
      0,
    );
    const r = Math.max(1, radius * (1 + wobble * sway));
    return [r * cosineTurn(turn), r * sineTurn(turn)];
  });
  return fitRing(points, 1);
}

/** How far from the middle the edge has to be for the frame to be full: what waves may take away at most is made up for. */
function fullAt({ settings }: Scene): number {
  const [width, height] = [settings['width']!, settings['height']!];
  const corner = Math.sqrt(width * width + height * height) / 2;
  return (corner * FULL) / (1 - settings['wobble']! / 100);
}

/** All of the frame, and as much more as the edge and its rim ever reach. */
function everywhere(scene: Scene): Ring {
  const { wobble, rim } = scene.settings;
  const far = fullAt(scene) * (1 + wobble! / 100) + rim! + 1;
  return polygonRing([
    [-far, -far],
    [far, -far],
    [far, far],
    [-far, far],
  ]);
}

/** How much is covered on a drawing, 0 to 1: the last drawing is full, or the first one where it uncovers. */
function coveredOn(scene: Scene, index: number): number {
  const count = scene.starts.length;
  // A drawing more than there are: none shows nothing.
  const share = count < 2 ? 1 : (index + 1) / count;
  const back = count < 2 ? 1 : 1 - index / count;
  const eased = (t: number): number => t ** (scene.settings['rush']! / 100);
  return Math.round(scene.settings['way']!) === 1 ? eased(back) : eased(share);
}

export const COVER: StarterKind = {
  effect: 'cover',
  name: 'Cover',
  says: 'A shape that grows until the frame is full',
  offered: 'more',
  telling: 0.55,
  cycles: () => false,
  follows: 'nothing',
  stands: 'fills',
  frame: { across: 'width', down: 'height' },
  length: 24,
  hold: 2,
  controls: [
    choice('way', 'It', ['covers the frame', 'uncovers it']),
    choice('form', 'Grows', ['from the middle out', 'closing round a hole']),
    control('wobble', 'Wobble', '%', [0, 40, 1], 16),
    control('churn', 'Churn', '%', [0, 200, 5], 60),
    control('rush', 'Rush at the end', '%', [40, 300, 5], 130),
    control('width', 'Frame across', 'px', [16, 8192, 2], 1920, 'more'),
    control('height', 'Frame down', 'px', [16, 8192, 2], 1080, 'more'),
    control('rim', 'Rim', 'px', [0, 400, 2], 36),
  ],
  outputs: [
    { key: 'rim', name: 'Cover rim', role: 'tone' },
    { key: 'body', name: 'Cover', role: 'body' },
  ],
  paints: [
    { key: 'body', name: 'cover', role: 'body', colour: '#2b2f3a' },
    { key: 'rim', name: 'cover rim', role: 'light', colour: '#59617a' },
  ],
  presets: [
    { name: 'Splat', settings: {} },
    { name: 'Closing in', settings: { form: 1, wobble: 22, rush: 90 } },
    { name: 'Opening', settings: { way: 1, form: 1 } },
    { name: 'Drawing back', settings: { way: 1, wobble: 12 } },
  ],
  draw: (scene, index): LaidFrame => {
    const rim = scene.settings['rim']!;
    const covered = coveredOn(scene, index);
    const age = ageOf(scene, index);
    const closes = Math.round(scene.settings['form']!) === 1;
    if (covered >= 1) return { body: starterFill('body', [everywhere(scene)]), rim: [] };
    const all = everywhere(scene);
    const radius = fullAt(scene) * (closes ? 1 - covered : covered);
    const line = edge(scene, radius, age);
    const inner = edge(scene, Math.max(1, radius - rim * (closes ? -1 : 1)), age);
    const hasRim = rim > 0 && (closes || radius > rim * 1.5);
    return {
      body: starterFill('body', closes ? [all, line] : [line]),
      rim: hasRim ? starterFill('rim', closes ? [inner, line] : [line, inner]) : [],
    };
  },
};
