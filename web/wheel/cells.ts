/** What stands in a cell of the sheet: a layer on a frame of its element. */
import { slotNumbers, exposureAt, listFrame, type TimedLayer } from '@tallow/core/timing';
import type { Between, Pose } from '@tallow/core/document';

export interface Cell {
  /** Number of the drawing where its exposure begins, or null where it goes on. */
  readonly number: number | null;
  readonly slot: string | null;
  readonly drawingId: string | null;
  /** A slot that is still to be drawn. */
  readonly bare: boolean;
  readonly pose: Pose | null;
  /** Computed and not yet touched by hand. */
  readonly computed: boolean;
  /** Index of the run, or null past the last. */
  readonly run: number | null;
  readonly last: boolean;
}

const NOTHING: Cell = {
  number: null,
  slot: null,
  drawingId: null,
  bare: false,
  pose: null,
  computed: false,
  run: null,
  last: false,
};

/** Slots of a layer whose in-betweens are as they were computed. */
export const computedSlots = (betweens: readonly Between[], touched: ReadonlySet<string>): ReadonlySet<string> =>
  new Set(betweens.flatMap(({ laid }) => Object.keys(laid).filter((slot) => !touched.has(slot))));

/** @param turn the element's length, frames. @param frame may lie past it: there nothing shows. */
export function cellAt(timed: TimedLayer, frame: number, turn: number, computed: ReadonlySet<string>): Cell {
  const { list, layer } = timed;
  const exposure = frame < turn ? exposureAt(list, frame, turn) : null;
  if (!exposure) return NOTHING;
  const { run, index, start } = exposure;
  // A still layer says its drawing once.
  const local = list.period === 1 ? frame : listFrame(list, frame, turn);
  const drawingId = run.slot ? (layer.slots[run.slot] ?? null) : null;
  return {
    number: run.slot && local === start ? slotNumbers(list).get(run.slot)! : null,
    slot: run.slot,
    drawingId,
    bare: run.slot !== null && drawingId === null,
    pose: run.slot ? (list.poses[run.slot] ?? null) : null,
    computed: run.slot !== null && computed.has(run.slot),
    run: index,
    last: list.period === 1 ? frame === turn - 1 : local === start + run.length - 1,
  };
}
