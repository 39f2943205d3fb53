/** Picking and typing on the sheet. What is picked is the desk's; the frames typed into are the sheet's. */
import { randomId } from '@tallow/core/document';
import { readEntry, spanOf, typeInto } from '@tallow/core/edit';
import { exposureAt, isLocked } from '@tallow/core/timing';
import type { KeyboardEvent } from 'react';
import { create } from 'zustand';
import type { Current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { goTo } from '../playback/playhead.ts';
import { act } from '../actions/action.ts';
import { TIME_ACTIONS } from '../time/actions.ts';

/** Frames of a layer, and of others beside it. */
interface SheetSpan {
  readonly layerId: string;
  readonly from: number;
  readonly length: number;
  readonly also?: readonly string[];
}

interface SheetState {
  /** Where picking began, and what it has come to. */
  readonly anchor: { readonly layerId: string; readonly frame: number } | null;
  readonly span: SheetSpan | null;
  /** What is being typed, or null. */
  readonly entry: string | null;
  readonly trouble: string | null;
}

export const useSheet = create<SheetState>(() => ({ anchor: null, span: null, entry: null, trouble: null }));
const setSheet = useSheet.setState;

/** The frames of what is picked, as the wheel may have picked it. */
export function sheetSpan(now: Current, own: SheetSpan | null): SheetSpan | null {
  const { selectedRuns } = selection();
  if (!selectedRuns || !now.active) return null;
  const { from, length } = spanOf(now.active.list, selectedRuns, now.length);
  const wide = {
    layerId: selectedRuns.layerId,
    from,
    length,
    ...(selectedRuns.also ? { also: selectedRuns.also } : {}),
  };
  const inside = own?.layerId === selectedRuns.layerId && own.from >= from && own.from + own.length <= from + length;
  return inside ? own : wide;
}

/** Picks frames from where picking began to a spot; null as beginning goes on with what was begun. */
export function pickFrames(
  now: Current,
  begin: { layerId: string; frame: number } | null,
  to: { layerId: string; frame: number },
): void {
  const anchor = begin ?? useSheet.getState().anchor ?? to;
  const columns = now.layers.map(({ layer }) => layer.id);
  const [a, b] = [columns.indexOf(anchor.layerId), columns.indexOf(to.layerId)].sort((x, y) => x - y) as [
    number,
    number,
  ];
  const also = columns.slice(a, b + 1).filter((id) => id !== anchor.layerId);
  const from = Math.min(anchor.frame, to.frame);
  const length = Math.abs(anchor.frame - to.frame) + 1;
  const timed = now.layers.find(({ layer }) => layer.id === anchor.layerId);
  if (!timed) return;
  setSheet({
    anchor,
    entry: null,
    trouble: null,
    span: { layerId: anchor.layerId, from, length, ...(also.length > 0 ? { also } : {}) },
  });
  const runs = new Set<number>();
  for (let f = from; f < Math.min(now.length, from + length); f++) {
    const run = exposureAt(timed.list, f, now.length)?.index;
    if (run !== undefined) runs.add(run);
  }
  const first = exposureAt(timed.list, from, now.length)?.index;
  const isRange = length > 1 || also.length > 0;
  setSelection({
    layerId: anchor.layerId,
    selectedRuns:
      isRange && first !== undefined
        ? { layerId: anchor.layerId, first, count: runs.size, ...(also.length > 0 ? { also } : {}) }
        : null,
  });
  if (to.frame < now.length) goTo(to.frame);
}

/** Puts the place that is typed into elsewhere. */
export function moveSheet(span: SheetSpan): void {
  setSheet({ span, anchor: { layerId: span.layerId, frame: span.from }, entry: null, trouble: null });
}

/** The place that is typed into goes with the playhead when that is moved elsewhere. Past the end there is no playhead. */
export function followPlayhead(frame: number, length: number): void {
  const { span } = useSheet.getState();
  if (span && span.from < length && (frame < span.from || frame >= span.from + span.length))
    setSheet({ span: null, anchor: null, entry: null });
}

function step(now: Current, down: number, across: number, extends_: boolean): void {
  const columns = now.layers.map(({ layer }) => layer.id);
  const { span, anchor } = useSheet.getState();
  const layerId = now.active?.layer.id ?? columns[0];
  if (!layerId) return;
  const here = anchor && anchor.layerId === layerId ? anchor : { layerId, frame: selection().frame };
  const end = span && extends_ ? (here.frame === span.from ? span.from + span.length - 1 : span.from) : here.frame;
  const column = Math.min(columns.length - 1, Math.max(0, columns.indexOf(here.layerId) + across));
  const to = { layerId: columns[column]!, frame: Math.max(0, Math.min(now.length + 23, end + down)) };
  pickFrames(now, extends_ ? here : to, extends_ ? { ...to, layerId: here.layerId } : to);
}

/** Writes what has been typed. */
function write(now: Current, text: string): void {
  const { span } = useSheet.getState();
  const layerId = span?.layerId ?? now.active?.layer.id;
  const timed = now.layers.find(({ layer }) => layer.id === layerId);
  const entry = readEntry(text);
  if (!layerId || !timed) return;
  if (!entry) {
    setSheet({ entry: null, trouble: `“${text}” is no drawing: type 7, 3-9, 1-8x2, x or -` });
    return;
  }
  const locked = isLocked(timed) ? 'The layer is locked. Unlock it first.' : null;
  const still = timed.list.period === 1 ? 'The layer is still: it shows one drawing throughout.' : null;
  if (locked ?? still) {
    setSheet({ entry: null, trouble: locked ?? still });
    return;
  }
  const from = span?.from ?? selection().frame;
  const length = span && span.length > 1 ? span.length : null;
  let next = from;
  edit('type into the sheet', (doc) => {
    const timedEdit = typeInto(doc, layerId, from, length, entry, randomId);
    next = timedEdit.frame;
    return timedEdit.doc;
  });
  moveSheet({ layerId, from: next, length: 1 });
  setSelection({ selectedRuns: null });
  goTo(next);
}

const TYPED = /^[0-9xX-]$/;

/** A key on the sheet. @returns whether it was for the sheet. */
export function typed(now: Current, event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.altKey || event.metaKey) return false;
  const { entry } = useSheet.getState();
  const arrows: Readonly<Record<string, readonly [number, number]>> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };
  const arrow = arrows[event.key];
  if (arrow) {
    if (entry) write(now, entry);
    else step(now, arrow[0], arrow[1], event.shiftKey);
    return true;
  }
  if (TYPED.test(event.key)) {
    setSheet({ entry: (entry ?? '') + event.key.toLowerCase(), trouble: null });
    return true;
  }
  if (event.key === 'Enter') {
    if (entry) write(now, entry);
    else step(now, 1, 0, false);
    return true;
  }
  if (event.key === 'Backspace' && entry) {
    setSheet({ entry: entry.slice(0, -1) || null });
    return true;
  }
  if (event.key === 'Escape' && entry !== null) {
    setSheet({ entry: null });
    return true;
  }
  if (event.key === 'Delete') {
    act(event.shiftKey ? TIME_ACTIONS.removeHold : TIME_ACTIONS.remove);
    return true;
  }
  return false;
}
