/** What follows a fast move: the form squashed where it arrives, and a little drawn out again before it rests. */
import type { Id, Mark, NewId } from '../document/index.ts';
import { warpedMark } from '../marks/index.ts';
import { flowOfWork, placedBack, type SmearWork } from './work.ts';

/** How long it is along the way, of its length at rest, squashed and settling; across it is as much broader as keeps its area. */
export const [SQUASHED, SETTLING] = [0.78, 1.08] as const;

/** The arriving drawing squashed along its way against its leading end, layer by layer. @param long of its length, above 0. */
export function arrivedAs(work: SmearWork, long: number, newId: NewId): Map<Id, Mark[]> {
  const { flow, layers, arrived } = flowOfWork(work);
  const alongs = arrived.drawnBy.map(([x, y]) => flow.to({ x, y }).along);
  const leading = alongs.reduce((a, b) => Math.max(a, b), -Infinity);
  const map = (point: { x: number; y: number }) => {
    const { along, across } = flow.to(point);
    return flow.from(leading + (along - leading) * long, across / long);
  };
  return placedBack(
    work,
    layers.map(({ layerId, after }) => [layerId, after.map((mark) => ({ ...warpedMark(mark, { map }), id: newId() }))]),
    newId,
  );
}
