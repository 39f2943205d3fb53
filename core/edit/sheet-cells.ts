/** What stands in a cell of the sheet: a layer on a frame of its element. */
import type { Between, Pose } from '../document/index.ts';
import { exposureAt, listFrame, slotNumbers, type TimedLayer } from '../timing/index.ts';
import { bareGroups } from './ties.ts';

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
  /** Where a slot that is still to be drawn would lie between the drawings round it, 0 to 1. */
  readonly planned: number | null;
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
  planned: null,
};

/** Slots of a layer whose in-betweens are as they were computed. */
export const computedSlots = (betweens: readonly Between[], touched: ReadonlySet<string>): ReadonlySet<string> =>
  new Set(betweens.flatMap(({ laid }) => Object.keys(laid).filter((slot) => !touched.has(slot))));

/** Even spacing between the drawings before and after, or null where one of them is not there. */
function plannedShare(timed: TimedLayer, index: number): number | null {
  const group = bareGroups(timed, true).find(({ runs }) => runs.includes(index));
  return group?.between ? (group.runs.indexOf(index) + 1) / (group.runs.length + 1) : null;
}

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
    planned: drawingId === null && run.slot !== null && local === start ? plannedShare(timed, index) : null,
    last: list.period === 1 ? frame === turn - 1 : local === start + run.length - 1,
  };
}
