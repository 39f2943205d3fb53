/** Where in-betweens lie on the way: evenly, eased, or favouring one end; ticks that keep their order. */
import { clamp } from '../geometry/index.ts';
import { easeOf } from '../plan/index.ts';

export interface Spread {
  /** 0 to 1: how softly it leaves and arrives. */
  readonly softStart: number;
  readonly softEnd: number;
  /** -1 to 1: below 0 drawings lie nearer to the first, above nearer to the second. */
  readonly favour: number;
}

export const EVEN: Spread = { softStart: 0, softEnd: 0, favour: 0 };

/** Shares of the way of so many in-betweens, rising. */
export function fractionsFor(count: number, { softStart, softEnd, favour }: Spread): number[] {
  const bend = Math.pow(2, -favour * 1.4);
  return Array.from({ length: count }, (_, i) => {
    const time = (i + 1) / (count + 1);
    const eased = softStart === 0 && softEnd === 0 ? time : easeOf({ softStart, softEnd }, time);
    return bend === 1 ? eased : Math.pow(eased, bend);
  });
}

/** The fractions with one put elsewhere, between its neighbours. */
export const putFraction = (shares: readonly number[], index: number, to: number): number[] =>
  shares.map((share, i) => (i === index ? clamp(to, shares[i - 1] ?? 0, shares[i + 1] ?? 1) : share));

/** The order in which in-betweens are best drawn: the middle first, then the middles of the halves. */
export function drawingOrder(count: number): number[] {
  const order: number[] = [];
  const halve = (spans: readonly (readonly [number, number])[]): void => {
    const next: [number, number][] = [];
    for (const [from, to] of spans) {
      if (to - from < 1) continue;
      const middle = (from + to - 1) >> 1;
      order.push(middle);
      next.push([from, middle], [middle + 1, to]);
    }
    if (next.length > 0) halve(next);
  };
  halve([[0, count]]);
  return order;
}
