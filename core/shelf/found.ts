/** What of the shelf is found by words, kind, time, length and colour. */
import { oklab } from '../colour/index.ts';
import type { ElementTime } from '../document/index.ts';
import type { ShelfKind } from './kinds.ts';

/** What of an effect on the shelf is looked through. */
interface Findable {
  readonly name: string;
  readonly kind: ShelfKind;
  readonly tags: readonly string[];
  readonly note: string;
  readonly time: ElementTime;
  /** Frames. */
  readonly length: number;
  /** Its swatches, `#rrggbb`. */
  readonly colours: readonly string[];
}

/** What is looked for; null and the empty text ask for nothing. */
export interface ShelfQuery {
  readonly words: string;
  readonly kind: ShelfKind | null;
  readonly time: ElementTime | null;
  /** Frames at most. */
  readonly longest: number | null;
  /** A colour that one of its swatches is about like. */
  readonly colour: string | null;
}

export const ASKED_NOTHING: ShelfQuery = { words: '', kind: null, time: null, longest: null, colour: null };

/** Oklab distance up to which a swatch is about a colour. */
const NEAR = 0.14;

const distance = (a: string, b: string): number => {
  const [x, y] = [oklab(a), oklab(b)];
  return Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2]);
};

/** Whether an effect is what is looked for: every word stands in its name, kind, tags or note. */
export function isFound(effect: Findable, { words, kind, time, longest, colour }: ShelfQuery): boolean {
  const said = [effect.name, effect.kind, ...effect.tags, effect.note].join(' ').toLocaleLowerCase();
  return (
    words
      .toLocaleLowerCase()
      .split(/\s+/)
      .every((word) => said.includes(word)) &&
    (kind === null || effect.kind === kind) &&
    (time === null || effect.time === time) &&
    (longest === null || effect.length <= longest) &&
    (colour === null || effect.colours.some((each) => distance(each, colour) <= NEAR))
  );
}
