/** The runs of a layer as they lie on the element's time. */
import type { Element, RunList } from '../document/index.ts';
import { shownOn, type TimedLayer } from './element.ts';
import { exposures, runStart } from './runs.ts';

/** An element's time: its layers and the frames of one turn. */
export interface ElementTimeline {
  readonly element: Pick<Element, 'time'>;
  readonly layers: readonly TimedLayer[];
  readonly length: number;
}

export interface Arc {
  /** Element frames; `to` is one past the last. */
  readonly from: number;
  readonly to: number;
  readonly drawn: boolean;
  /** A slot that is still to be drawn. */
  readonly bare: boolean;
  readonly drawingId: string | null;
  /** Index of the run. */
  readonly run: number;
}

/** Those parts of arcs that lie on a stretch of frames. */
export const arcsWithin = (arcs: readonly Arc[], { from, length }: { from: number; length: number }): Arc[] =>
  arcs
    .map((arc) => ({ ...arc, from: Math.max(from, arc.from), to: Math.min(from + length, arc.to) }))
    .filter((arc) => arc.from < arc.to);

/** What arcs were made of, with them: lists and slots never change. */
interface Known {
  readonly list: RunList;
  readonly length: number;
  readonly time: Element['time'];
  readonly arcs: readonly Arc[];
}
/** By a layer's slots: tied layers have one list. */
const known = new WeakMap<TimedLayer['layer']['slots'], Known>();

/**
 * Arcs of a layer: one for each run and turn of its own repeat, cut in two where it crosses the seam.
 * @param index of the layer.
 */
export function arcsOf(now: ElementTimeline, index: number): readonly Arc[] {
  const timed = now.layers[index]!;
  const { list, layer } = timed;
  const { length } = now;
  const { time } = now.element;
  const before = known.get(layer.slots);
  if (before?.list === list && before.length === length && before.time === time) return before.arcs;
  const arcs = madeOf(now, timed);
  known.set(layer.slots, { list, length, time, arcs });
  return arcs;
}

function madeOf(now: ElementTimeline, timed: TimedLayer): Arc[] {
  const { list, layer } = timed;
  if (list.period === 1) {
    const drawingId = shownOn(timed, 0, now.length)?.drawingId ?? null;
    return [{ from: 0, to: now.length, drawn: drawingId !== null, bare: false, drawingId, run: 0 }];
  }
  const turn = list.period ?? now.length;
  const closed = now.element.time === 'cycle' || list.period !== null;
  return exposures(list).flatMap(({ run, index: at }) => {
    const start = runStart(list, at, now.length);
    const drawingId = run.slot ? (layer.slots[run.slot] ?? null) : null;
    const end = start + run.length;
    const base = { drawn: drawingId !== null, bare: run.slot !== null && drawingId === null, drawingId, run: at };
    const once =
      end > turn && closed
        ? [
            { from: start, to: turn },
            { from: 0, to: end - turn },
          ]
        : [{ from: start, to: end }];
    const turns = list.period === null ? 1 : Math.ceil(now.length / turn);
    return Array.from({ length: turns }, (_, t) => t * turn).flatMap((by) =>
      once
        .map(({ from, to }) => ({ from: from + by, to: Math.min(now.length, to + by), ...base }))
        .filter((arc) => arc.from < arc.to),
    );
  });
}
