/** Lines that close the gaps between ends of lines: straight, or on along both lines where these lead to each other. */
import type { Drawing, Stroke } from '../document/index.ts';
import type { Matrix, Point } from '../geometry/index.ts';
import { endedLine, linesIn, nearestOn, ownSamples, placeOn, type EndedLine, type LineMeeting } from './line-ends.ts';
import { transformed } from './transform.ts';

/** px along a line from its end by which its direction there is judged, at least. */
const LEAD = 10;
/** Cosine of how far off a line may lead and still be taken to go on: 45 degrees. */
const LEADS = 0.7;
/** px between two points of a closing curve. */
const STEP = 2;
/** px within which an end counts as meeting a line. */
const TOUCH = 0.75;

interface End {
  readonly line: EndedLine;
  readonly index: number;
  readonly at: Point;
  readonly half: number;
  /** Where the line would go on, length 1. */
  readonly onward: Point;
}

/** A way over a gap. */
interface Bridge {
  /** px free of ink. */
  readonly far: number;
  readonly from: End;
  readonly to: End | LineMeeting;
}

const isEnd = (to: End | LineMeeting): to is End => 'line' in to;

/** The sample of a line that lies so far along it from an end, or its other end. */
function sampleAlong(line: EndedLine, index: number, reach: number): Point {
  const [first, last] = ownSamples(line, index, reach);
  return placeOn(line, index === 0 ? last : first);
}

/** The angle of the way between two places; null where they are one. */
const angleTo = (from: Point, to: Point): number | null =>
  from.x === to.x && from.y === to.y ? null : Math.atan2(to.y - from.y, to.x - from.x);

/** Radians a line may be taken to bend on from its last piece to its very end. */
const MAX_BEND = 0.35;

function endOf(line: EndedLine, index: number): End {
  const half = line.half[index]!;
  // The pen lands and lifts unsteadily: the very end says little of where a line leads, two pieces before it say more.
  const lead = Math.max(LEAD, 2 * half);
  const at = placeOn(line, index);
  const [near, far] = [sampleAlong(line, index, lead), sampleAlong(line, index, 2 * lead)];
  const last = angleTo(near, at) ?? 0;
  const before = angleTo(far, near);
  const turned = before === null ? 0 : Math.atan2(Math.sin(last - before), Math.cos(last - before));
  const angle = last + Math.min(MAX_BEND, Math.max(-MAX_BEND, turned / 2));
  const onward = { x: Math.cos(angle), y: Math.sin(angle) };
  return { line, index, at, half, onward };
}

/** How far a handle reaches so that a curve that turns by this much at its end is round there, as a share of the chord. */
function handleShare(cosine: number): number {
  // The handle of a circle's arc that leaves its chord at an angle a: 1 / (3 cos²(a / 2)), and cos²(a / 2) is (1 + cos a) / 2.
  return 2 / (3 * (1 + cosine));
}

/** The points of the way between two ends: the curve that goes on along both where both lead there, else straight. */
function wayBetween(a: End, b: End): Point[] {
  const [dx, dy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const chord = Math.hypot(dx, dy);
  if (chord === 0) return [a.at, b.at];
  const [ca, cb] = [(a.onward.x * dx + a.onward.y * dy) / chord, -(b.onward.x * dx + b.onward.y * dy) / chord];
  if (ca < LEADS || cb < LEADS) return [a.at, b.at];
  const [ha, hb] = [chord * handleShare(ca), chord * handleShare(cb)];
  const [c, d] = [
    { x: a.at.x + a.onward.x * ha, y: a.at.y + a.onward.y * ha },
    { x: b.at.x + b.onward.x * hb, y: b.at.y + b.onward.y * hb },
  ];
  const count = Math.max(4, Math.ceil(chord / STEP));
  return Array.from({ length: count + 1 }, (_, i) => {
    const t = i / count;
    const s = 1 - t;
    const mixed = (from: number, first: number, second: number, to: number) =>
      s * s * s * from + 3 * s * s * t * first + 3 * s * t * t * second + t * t * t * to;
    return { x: mixed(a.at.x, c.x, d.x, b.at.x), y: mixed(a.at.y, c.y, d.y, b.at.y) };
  });
}

function bridgesFrom(from: End, lines: readonly EndedLine[], ends: readonly End[], gap: number): Bridge[] {
  const { at, half, line, index } = from;
  const own = ownSamples(line, index, 3 * (gap + half) + 2 * half);
  const reach = gap + half;
  const bridges: Bridge[] = [];
  for (const other of lines) {
    const meeting = nearestOn(other, at, other === line ? own : null, reach);
    if (!meeting) continue;
    // It meets a line already: nothing is open here.
    if (meeting.far - half <= TOUCH) return [];
    bridges.push({ far: meeting.far - half, from, to: meeting });
  }
  for (const to of ends) {
    if (to === from) continue;
    const far = Math.hypot(to.at.x - at.x, to.at.y - at.y) - half - to.half;
    // The other end is as near as its line is, or all but: then it is the end that is meant.
    if (far <= gap) bridges.push({ far: far - TOUCH, from, to });
  }
  return bridges;
}

/**
 * The ways that close gaps, each as the points of a line. The narrowest gap is closed first, and each end closes one.
 * @param bounding drawings whose lines bound, and how they lie to the space of the answer. @param gap px free of ink, at most.
 */
export function closingsOf(
  bounding: readonly { readonly drawing: Drawing; readonly matrix: Matrix }[],
  gap: number,
): Point[][] {
  if (gap <= 0) return [];
  const lines = bounding.flatMap(({ drawing, matrix }) =>
    linesIn(drawing).map(({ stroke }) => endedLine(transformed(stroke, matrix) as Stroke)),
  );
  const ends = lines.flatMap((line) =>
    line.half.length < 2 || line.stroke.unseen ? [] : [endOf(line, 0), endOf(line, line.half.length - 1)],
  );
  const bridges = ends.flatMap((end) => bridgesFrom(end, lines, ends, gap)).sort((a, b) => a.far - b.far);
  const closed = new Set<End>();
  const ways: Point[][] = [];
  for (const { from, to } of bridges) {
    if (closed.has(from) || (isEnd(to) && closed.has(to))) continue;
    closed.add(from);
    if (isEnd(to)) closed.add(to);
    ways.push(isEnd(to) ? wayBetween(from, to) : [from.at, { x: to.x, y: to.y }]);
  }
  return ways;
}
