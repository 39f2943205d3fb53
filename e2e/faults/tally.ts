/** Every stroke of a run, where it was drawn, and what has become of it on the server. */
import type { Mark } from '../../core/document/index.ts';

export interface Stroke {
  readonly number: number;
  /** The drawing it was drawn on, counted as the hand counts them: all strokes of one group lie on one drawing. */
  readonly group: number;
  /** Whether it was finished; one that was under way when its page was killed may be there or not. */
  finished: boolean;
  /** When its pen was lifted, ms. */
  at: number;
  /** Which hand drew it. */
  readonly hand: string;
  /** The drawing's own id, where the hand knows it. */
  readonly drawingId?: string;
}

export interface Drawn {
  readonly id: string;
  readonly marks: readonly Mark[];
}

/** Places across and down, each of one stroke. */
const ACROSS = 60;
const DOWN = 60;
/** From where to where of the picture's area they lie, in shares of it. */
const [FROM, ROOM] = [0.12, 0.76];
/** px that a place may be off. */
const NEAR = 1.5;

/** Where a stroke begins, in shares of the picture's area. */
export const placeOf = (number: number): { x: number; y: number } => ({
  x: FROM + (ROOM * (number % ACROSS)) / ACROSS,
  y: FROM + (ROOM * (Math.floor(number / ACROSS) % DOWN)) / DOWN,
});
export const MAX_STROKES = ACROSS * DOWN;

/** From shares of the picture's area to element space, told by two strokes. */
export class Map2 {
  private readonly scale: { x: number; y: number };
  constructor(
    private readonly a: { x: number; y: number },
    b: { x: number; y: number },
    private readonly at: { x: number; y: number },
    bt: { x: number; y: number },
  ) {
    this.scale = { x: (bt.x - at.x) / (b.x - a.x), y: (bt.y - at.y) / (b.y - a.y) };
  }
  out({ x, y }: { x: number; y: number }): { x: number; y: number } {
    return { x: this.at.x + (x - this.a.x) * this.scale.x, y: this.at.y + (y - this.a.y) * this.scale.y };
  }
  /** The number of the stroke that begins at a point of element space, or null for none. */
  number({ x, y }: { x: number; y: number }): number | null {
    const share = { x: this.a.x + (x - this.at.x) / this.scale.x, y: this.a.y + (y - this.at.y) / this.scale.y };
    const column = Math.round(((share.x - FROM) / ROOM) * ACROSS);
    const row = Math.round(((share.y - FROM) / ROOM) * DOWN);
    const number = row * ACROSS + column;
    const there = this.out(placeOf(number));
    return Math.hypot(there.x - x, there.y - y) < NEAR ? number : null;
  }
}

interface Verdict {
  readonly finished: number;
  readonly lost: readonly number[];
  readonly doubled: readonly number[];
  readonly elsewhere: readonly number[];
  /** What is known of each of these, for whoever looks into it. */
  readonly about: readonly string[];
  /** Marks on the server that no hand drew. */
  readonly strange: number;
}

/** The numbers of the strokes on a drawing; null for marks that no hand drew. */
export const numbersOn = (marks: readonly Mark[], map: Map2): (number | null)[] =>
  marks.map((mark) => (mark.kind === 'stroke' ? map.number({ x: mark.samples.x[0]!, y: mark.samples.y[0]! }) : null));

/** Compares what was drawn with what the server has. */
export function judge(strokes: readonly Stroke[], drawings: readonly Drawn[], map: Map2): Verdict {
  const found = new Map<number, string[]>();
  let strange = 0;
  for (const { id, marks } of drawings)
    for (const number of numbersOn(marks, map)) {
      if (number === null) strange += 1;
      else found.set(number, [...(found.get(number) ?? []), id]);
    }
  const homes = new Map<number, string>();
  const owners = new Map<string, number>();
  const lost: number[] = [];
  const doubled: number[] = [];
  const elsewhere: number[] = [];
  for (const { number, group, finished, drawingId } of strokes) {
    const places = found.get(number) ?? [];
    if (places.length === 0 && finished) lost.push(number);
    if (places.length > 1) doubled.push(number);
    for (const place of places) {
      const home = drawingId ?? homes.get(group) ?? place;
      homes.set(group, home);
      const owner = owners.get(place) ?? group;
      owners.set(place, owner);
      if (place !== home || owner !== group) elsewhere.push(number);
    }
  }
  // Those that lie where others do not belong are reported too.
  const contested = new Set(elsewhere.flatMap((number) => found.get(number) ?? []));
  const about = strokes
    .filter(
      ({ number }) =>
        lost.includes(number) ||
        doubled.includes(number) ||
        (found.get(number) ?? []).some((place) => contested.has(place)),
    )
    .map(({ number, group, hand, at, finished }) =>
      [
        number,
        hand,
        `group ${group}`,
        finished ? 'finished' : 'open',
        Math.round(at),
        ...(found.get(number) ?? ['nowhere']),
      ].join(' '),
    );
  return { about, finished: strokes.filter((s) => s.finished).length, lost, doubled, elsewhere, strange };
}
