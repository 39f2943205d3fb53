/** Fills of a drawing carried to the in-betweens that follow it, as part of the step that laid these. */
import { find, randomId, type Id } from '@tallow/core/document';
import { boundsFingerprint } from '@tallow/core/derived';
import { fillOfLayer, layFills, type FillPlan } from '@tallow/core/edit';
import { frameOfSlot } from '@tallow/core/timing';
import { proxy } from 'comlink';
import { compute } from '../workers/compute-client.ts';
import { current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { MAX_GAP, setFill, type FillReportAt } from './fill.ts';
import { workAt } from './looking.ts';

/**
 * Fills a layer in some slots as it is filled in another.
 * @param from the slot it is filled in already. @param gesture of the step that it becomes part of.
 */
export async function fillBetween(
  layerId: Id,
  from: Id,
  slots: readonly Id[],
  name: string,
  gesture: string,
): Promise<void> {
  const now = current();
  if (!now) return;
  const fill = fillOfLayer(now.doc, layerId);
  const first = fill?.slots[from];
  if (!first) return;
  const plan: FillPlan = { layerId, bounds: fill.bounds, gap: fill.gap, under: fill.under };
  const works = [from, ...slots].flatMap((slot) => {
    const frame = frameOfSlot(now.doc, layerId, slot);
    const made =
      frame === null ? null : workAt(now, { ...plan, gap: slot === from ? (first.gap ?? plan.gap) : plan.gap }, frame);
    return made ? [{ slot, work: made.work }] : [];
  });
  if (works[0]?.slot !== from || works.length < 2) return;
  const results = await compute().fillThrough(
    works.map(({ work }) => work),
    first.regions.map(({ x, y, swatch }) => ({ seed: { x, y }, swatch })),
    MAX_GAP,
    proxy(() => Promise.resolve()),
  );
  if (!results) return;
  const reports: FillReportAt[] = [];
  edit(
    name,
    (doc) => {
      let next = doc;
      results.forEach(({ shapes, reports: own, gap }, i) => {
        const frame = frameOfSlot(next, layerId, works[i + 1]!.slot);
        // Another step may have taken the layer or its lines away meanwhile.
        const print = frame !== null && find(next, 'layer', layerId) ? boundsFingerprint(next, plan, frame) : null;
        if (frame === null || print === null) return;
        next = layFills(next, plan, frame, shapes, print, randomId, gap);
        reports.push(...own.map((report) => ({ ...report, frame })));
      });
      return next;
    },
    gesture,
  );
  setFill({ reports });
}
