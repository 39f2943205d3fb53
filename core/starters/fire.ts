/**
 * Fire: tongues stand on a base. A tongue's middle is a wave that travels up it, and its half width is a
 * flame's profile times bulges that travel up too. Near the top the bulges take more than there is: the neck
 * thins, parts, and what is above it goes on rising and shrinking. Light and core are smaller tongues in the
 * same time. Waves and bulges pass a whole number of times in a cycle, so it closes by construction.
 */
import type { Ring } from '../document/index.ts';
import { gridOver, ringsAt, type Grid } from '../geometry/index.ts';
import { FIELD_OUTSIDE } from './field.ts';
import { outlinedLine } from './line.ts';
import { GUIDE_PAINT, circleLine } from './circles.ts';
import { control } from '../controls/index.ts';
import { starterFill, phaseOf, type LaidFrame, type Scene, type StarterKind } from './starter.ts';
import { addTongue, curlOn, profile, ROWS, tonguesAt, TOP, type Curl, type Tongue } from './fire-tongues.ts';

const { abs, max, min } = Math;

const flameField = (grid: Grid, tongues: readonly Tongue[], curl: Curl, blend: number): Float64Array => {
  const values = new Float64Array(grid.columns * grid.rows).fill(FIELD_OUTSIDE);
  for (const tongue of tongues) addTongue(values, grid, tongue, curl, blend);
  return values;
};

/** The grid that a flame of these settings fits on, whatever the phase. */
export function fireGrid({ settings, line }: Pick<Scene, 'settings' | 'line'>): Grid {
  const { height, width, sway, wind, gust } = settings as Record<string, number>;
  const aside = sway! * 3.4 + abs(wind!) * (1 + gust! / 100) * 1.6;
  const xs = line?.map((p) => p.x) ?? [-width! / 2, width! / 2];
  const ys = line?.map((p) => p.y) ?? [0];
  return gridOver(
    {
      left: min(...xs) - width! * 0.2 - aside,
      right: max(...xs) + width! * 0.2 + aside,
      top: min(...ys) - height! * TOP * 1.25,
      bottom: max(...ys) + width! * 0.1,
    },
    1.5,
    230,
  );
}

/** Rings of a flame on one moment. */
interface FlameRings {
  readonly body: readonly Ring[];
  readonly flame: readonly Ring[];
  readonly core: readonly Ring[];
}

/**
 * The flame at a phase of its cycle. The same scene and phase give the same rings.
 * @param phase in [0, 1), one cycle being 1.
 */
function fireAt(scene: Pick<Scene, 'settings' | 'seed' | 'line'>, phase: number): FlameRings {
  const { settings, seed } = scene;
  const width = settings['width']!;
  const grid = fireGrid(scene);
  const curl = curlOn(grid, settings, phase, seed);
  const blend = width * 0.05;
  const body = flameField(grid, tonguesAt(scene, phase, 1), curl, blend);
  const inner = (share: number, inset: number) => {
    const field = flameField(grid, tonguesAt(scene, phase, share), curl, blend * 1.6);
    return field.map((value, i) => min(value, body[i]! - inset));
  };
  const smallest = max(30, width * width * 0.0011);
  return {
    body: ringsAt(body, grid, 0, smallest),
    flame: ringsAt(inner(0.64, width * 0.028), grid, 0, smallest),
    core: ringsAt(inner(0.34, width * 0.06), grid, 0, smallest * 1.6),
  };
}

/** Balls to build the flame on: one in each bulge, large below, small above, rising and shrinking. */
function fireBalls(
  scene: Pick<Scene, 'settings' | 'seed' | 'line'>,
  phase: number,
): { x: number; y: number; r: number }[] {
  return tonguesAt(scene, phase, 1).flatMap((tongue) => {
    const balls: { x: number; y: number; r: number }[] = [];
    let before = tongue.bulge(0.02);
    let rising = true;
    for (let k = 1; k <= ROWS; k++) {
      const h = (k / ROWS) * TOP;
      const now = tongue.bulge(h);
      if ((rising && now < before) || k === 12) {
        const r = tongue.half * profile(h, tongue.taper) * max(0.2, tongue.bulge(h));
        if (r > 3) balls.push({ x: tongue.x + tongue.middle(h), y: tongue.y - h * tongue.height, r });
      }
      rising = now >= before;
      before = now;
    }
    return balls;
  });
}

const LINE_WIDTH = 0.034;

function draw(scene: Scene, index: number): LaidFrame {
  const phase = phaseOf(scene, index);
  const { body, flame, core } = fireAt(scene, phase);
  const width = max(2, scene.settings['width']! * LINE_WIDTH);
  return {
    line: body.map((ring) => outlinedLine(ring, 'line', width)),
    core: starterFill('core', core),
    body: [...starterFill('body', body), ...starterFill('flame', flame)],
    balls: fireBalls(scene, phase).map((ball) => circleLine('guide', ball, 3)),
  };
}

export const FIRE: StarterKind = {
  effect: 'fire',
  name: 'Fire',
  says: 'A fire that burns round and round',
  offered: 'first',
  cycles: () => true,
  follows: 'line',
  stands: 'floor',
  length: 24,
  hold: 2,
  controls: [
    control('anger', 'Calm to angry', '%', [0, 100, 1], 35),
    control('height', 'Height', 'px', [60, 1400, 5], 560),
    control('width', 'Width', 'px', [30, 1600, 5], 320),
    control('tongues', 'Tongues', '', [1, 14, 1], 4),
    control('rises', 'Rises per cycle', '', [1, 4, 1], 1),
    control('sway', 'Sway', 'px', [0, 160, 1], 34),
    control('wind', 'Wind', 'px', [-400, 400, 5], 0),
    control('gust', 'Gusts', '%', [0, 100, 1], 40, 'more'),
    control('pointed', 'Pointed tips', '%', [0, 100, 1], 70, 'more'),
    control('breaks', 'Licks break off', '%', [0, 160, 1], 100, 'more'),
    control('curl', 'Curl', '%', [0, 100, 1], 40, 'more'),
  ],
  outputs: [
    { key: 'balls', name: 'Fire balls', role: 'guide', hidden: true },
    { key: 'line', name: 'Fire line', role: 'line' },
    { key: 'core', name: 'Fire core', role: 'tone' },
    { key: 'body', name: 'Fire body', role: 'body' },
  ],
  paints: [
    { key: 'line', name: 'line', role: 'outline', colour: '#8c2a14' },
    { key: 'body', name: 'body', role: 'body', colour: '#e2581c' },
    { key: 'flame', name: 'flame', role: 'light', colour: '#ffa62b' },
    { key: 'core', name: 'core', role: 'core', colour: '#fff0b8' },
    GUIDE_PAINT,
  ],
  presets: [
    { name: 'Hearth', settings: {} },
    {
      name: 'Candle',
      settings: { anger: 5, height: 240, width: 84, tongues: 1, sway: 10, breaks: 20, curl: 10, pointed: 60 },
    },
    { name: 'Torch', settings: { anger: 50, height: 460, width: 190, tongues: 3, sway: 34, wind: 90, breaks: 120 } },
    { name: 'Blaze', settings: { anger: 85, height: 760, width: 900, tongues: 9, sway: 58, breaks: 130, curl: 60 } },
  ],
  moods: {
    calm: { anger: 10, breaks: 45, gust: 15, curl: 20, rises: 1 },
    crackling: { anger: 45, breaks: 140, gust: 50, curl: 60, rises: 2 },
    angry: { anger: 92, breaks: 140, gust: 80, curl: 70, rises: 2, pointed: 100 },
    menacing: { anger: 62, breaks: 60, gust: 70, curl: 85, rises: 1, pointed: 85 },
  },
  draw,
  pieces: ['body', 'core'],
};
