/**
 * The practice pen: strokes with pressure, tilt and timing, replayed into the function that takes the pen's own.
 * Each is kept by its key poses, as a hand makes them: places are shares of a box, angles in degrees.
 */
import type { PenDoing, PenSample } from '../hand/pen-doing.ts';

/** Milliseconds, place across and down, pressure, altitude (90 is upright) and direction of the lean. */
type Pose = readonly [ms: number, x: number, y: number, pressure: number, altitude: number, azimuth: number];

export interface Recorded {
  readonly name: string;
  readonly does: string;
  readonly poses: readonly Pose[];
}

export const RECORDED: readonly Recorded[] = [
  {
    name: 'Lick',
    does: 'Pressed in the belly, lifted towards the tip',
    poses: [
      [0, 0.3, 0.92, 0.15, 62, 40],
      [90, 0.34, 0.74, 0.55, 60, 42],
      [190, 0.48, 0.56, 0.95, 58, 45],
      [280, 0.52, 0.38, 0.8, 58, 48],
      [370, 0.44, 0.22, 0.45, 60, 50],
      [450, 0.5, 0.06, 0.08, 62, 52],
    ],
  },
  {
    name: 'Curl',
    does: 'Even pressure, round and back into itself',
    poses: [
      [0, 0.1, 0.7, 0.4, 58, 30],
      [140, 0.3, 0.4, 0.55, 58, 32],
      [280, 0.56, 0.22, 0.6, 57, 36],
      [420, 0.8, 0.4, 0.62, 56, 40],
      [560, 0.72, 0.7, 0.6, 56, 44],
      [700, 0.48, 0.72, 0.55, 57, 46],
      [840, 0.46, 0.48, 0.5, 58, 48],
      [960, 0.62, 0.44, 0.3, 58, 50],
    ],
  },
  {
    name: 'Shading',
    does: 'To and fro with the pen lying flat',
    poses: [
      [0, 0.1, 0.3, 0.35, 22, 20],
      [160, 0.9, 0.26, 0.5, 20, 20],
      [320, 0.12, 0.46, 0.55, 20, 21],
      [480, 0.9, 0.44, 0.6, 19, 22],
      [640, 0.12, 0.64, 0.65, 19, 22],
      [800, 0.9, 0.62, 0.7, 20, 23],
      [940, 0.3, 0.8, 0.5, 22, 24],
    ],
  },
  {
    name: 'Ramp',
    does: 'From the lightest touch to full pressure',
    poses: [
      [0, 0.05, 0.55, 0.02, 60, 40],
      [250, 0.28, 0.48, 0.25, 60, 40],
      [500, 0.5, 0.54, 0.5, 60, 40],
      [750, 0.72, 0.47, 0.75, 60, 40],
      [1000, 0.95, 0.53, 1, 60, 40],
    ],
  },
];

const RADIANS = Math.PI / 180;
/** Milliseconds between samples, as a tablet sends them. */
const BEAT = 8;

/** What the pen did at a time of a recorded stroke: a curve through its poses. */
export function poseAt({ poses }: Recorded, ms: number): Pose {
  const at = poses.findLastIndex(([begun]) => begun <= ms);
  const i = Math.min(poses.length - 2, Math.max(0, at));
  const [p0, p1, p2, p3] = [
    poses[Math.max(0, i - 1)]!,
    poses[i]!,
    poses[i + 1]!,
    poses[Math.min(poses.length - 1, i + 2)]!,
  ];
  const t = Math.min(1, Math.max(0, (ms - p1[0]) / (p2[0] - p1[0])));
  const through = (k: 1 | 2 | 3 | 4 | 5) => {
    const [a, b, c, d] = [p0[k], p1[k], p2[k], p3[k]];
    return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
  };
  return [ms, through(1), through(2), Math.min(1, Math.max(0, through(3))), through(4), through(5)];
}

/** The samples of a recorded stroke laid into a box, with the times they come at. */
export function recordedSamples(
  recorded: Recorded,
  box: { x: number; y: number; width: number; height: number },
): { readonly ms: number; readonly sample: PenSample }[] {
  const length = recorded.poses.at(-1)![0];
  return Array.from({ length: Math.floor(length / BEAT) + 1 }, (_, i) => {
    const [ms, x, y, pressure, altitude, azimuth] = poseAt(recorded, i * BEAT);
    return {
      ms,
      sample: {
        x: box.x + x * box.width,
        y: box.y + y * box.height,
        pressure,
        altitude: altitude * RADIANS,
        azimuth: azimuth * RADIANS,
        shift: false,
        alt: false,
      },
    };
  });
}

/**
 * Replays a recorded stroke at the speed it was made.
 * @param land begins with the first sample, as the pen's own landing does.
 * @returns stops it where it is.
 */
export function practise(
  recorded: Recorded,
  box: { x: number; y: number; width: number; height: number },
  land: (first: PenSample) => PenDoing | null,
): () => void {
  const samples = recordedSamples(recorded, box);
  const doing = land(samples[0]!.sample);
  if (!doing) return () => undefined;
  const began = performance.now();
  let next = 1;
  let asked = 0;
  const step = (): void => {
    const due: PenSample[] = [];
    for (; next < samples.length && samples[next]!.ms <= performance.now() - began; next++)
      due.push(samples[next]!.sample);
    if (due.length > 0) doing.move(due);
    if (next === samples.length) doing.up();
    else asked = requestAnimationFrame(step);
  };
  asked = requestAnimationFrame(step);
  return () => {
    cancelAnimationFrame(asked);
    if (next < samples.length) doing.drop();
  };
}
