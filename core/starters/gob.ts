/** A gob on its way along a path: head, neck and tail of one area; where it lands it squashes and spreads. */
import { clamp, mix, smoothStep, type Point } from '../geometry/index.ts';
import { wayOf, wayThrough, type MeasuredPath } from '../plan/index.ts';
import type { Ball } from './field.ts';
import { dropsAt, type Liquid } from './liquid-forms.ts';
import type { Scene } from './starter.ts';

/** The way a gob goes where no path is given: a throw. */
const throwWay = (size: number): MeasuredPath =>
  wayOf({
    nodes: wayThrough(
      [
        { x: 0, y: 0 },
        { x: size * 1.6, y: -size * 1.3 },
        { x: size * 3.6, y: -size * 0.9 },
        { x: size * 5, y: size * 1.6 },
      ],
      false,
    ),
    closed: false,
  });

/** Balls along a line from its head back: a neck after the head, a swelling before the end. */
function tailBalls(at: (back: number) => Point, head: number, long: number, neck: number): Ball[] {
  const count = Math.max(2, Math.ceil(long / (head * 0.22)));
  return Array.from({ length: count + 1 }, (_, i): Ball => {
    const t = i / count;
    const necked = 1 - neck * smoothStep(0.05, 0.4, t) * (1 - smoothStep(0.45, 0.85, t));
    const r = head * Math.max(0.05, (1 - t) * mix(1, 0.72, t) * necked + 0.1 * (1 - t));
    return { ...at(t * long), r };
  });
}

/** What of the time a gob is on its way where no path says how long. */
const FLIGHT = 0.56;

export function gobAt(scene: Scene, index: number): Liquid {
  const last = Math.max(1, scene.starts.at(-1)!);
  const age = scene.starts[index]! / last;
  const flight = scene.travel === null ? FLIGHT : Math.min(0.94, scene.travel / last);
  const { size, trail, neck, spread } = scene.settings as Record<string, number>;
  const way = scene.way ?? throwWay(size!);
  const radius = size! / 2;
  const area = Math.PI * radius * radius;
  const end = way.at(1);
  const floor = end.y + radius * 0.55;
  if (age < flight) {
    const t = age / flight;
    const share = scene.pace(t);
    const step = 0.04;
    const speed = ((share - scene.pace(Math.max(0, t - step))) / step) * way.length;
    // Never back past where it started: it grows out of it.
    const long = Math.min(share * way.length, (trail! / 100) * speed * 0.32);
    // Head and tail together keep the area: π R² + 2 R L m = A, m being the tail's mean half width in heads.
    const mean = 0.34;
    const head = (-long * mean + Math.sqrt(long * long * mean * mean + Math.PI * area)) / Math.PI;
    const balls = tailBalls(
      (back) => way.at(share - back / way.length),
      head,
      long,
      (neck! / 100) * clamp(long / (3 * radius), 0, 1),
    );
    const drops = dropsAt(
      scene,
      t,
      way.at(Math.max(0, share - (long * 0.9) / way.length)),
      radius * 1.2,
      radius * 0.8,
      false,
    );
    return { balls, drops: drops.slice(0, 3), blend: head * 0.22, rims: null };
  }
  const since = (age - flight) / (1 - flight);
  const out = 1 - (1 - since) * (1 - since) * (1 - since);
  const wide = radius * mix(1.12, 1 + (spread! / 100) * 2.6, out);
  // What it gains in width it loses in height; its lip stands up for a moment where it was fastest.
  const tall = (radius * radius * 1.5) / wide;
  const lip = radius * 0.9 * smoothStep(0, 0.14, since) * (1 - smoothStep(0.2, 0.75, since));
  const pool = (x: number, y: number) => {
    const t = Math.abs(x - end.x) / wide;
    if (t >= 1) return -50;
    const round = Math.sqrt(1 - t * t);
    const dome = mix(round, 1 - t * t * t * t, out) * mix(1, 0.75, smoothStep(0.1, 0.5, since));
    const stands = smoothStep(0.5, 0.84, t) * (1 - smoothStep(0.86, 1, t));
    return Math.min(y - (floor - tall * dome - lip * stands), floor + round * (wide * 0.09 + tall * 0.16) - y);
  };
  const frame: Ball[] = [
    { x: end.x - wide, y: floor, r: 1 },
    { x: end.x + wide, y: floor + wide * 0.2, r: 1 },
    { x: end.x, y: floor - tall - lip * 1.2, r: 1 },
  ];
  const drops = dropsAt(scene, since, { x: end.x, y: floor - radius * 0.3 }, radius * 2.6, radius, true);
  return { balls: frame, drops, blend: 2, rims: tall * 0.3, more: pool };
}
