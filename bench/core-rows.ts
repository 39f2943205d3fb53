/** Rows measured on the core alone: undo, the bytes of a save, the bound of caches. */
import {
  applyStep,
  encodeEntity,
  reversed,
  shotOf,
  touchedBetween,
  type ShotDocument,
  entitiesOf,
} from '@tallow/core/document';
import { addMarks } from '@tallow/core/edit';
import { ByteCache } from '@tallow/core/render';
import { newId, shotWith, wandering } from './documents.ts';
import { sideBySide, timeRow, type Row } from './measure.ts';

function drawOne(doc: ShotDocument): { after: ShotDocument; step: ReturnType<typeof touchedBetween> } {
  const layer = entitiesOf(doc, 'layer')[0]!;
  const after = addMarks(doc, layer.id, 0, [wandering(shotOf(doc).swatches[0]!, 200)], newId);
  return { after, step: touchedBetween(doc, after) };
}

async function undoRow(): Promise<Row> {
  const work = (doc: ShotDocument) => {
    const { after, step } = drawOne(doc);
    const back = reversed({ name: 'stroke', touched: step });
    // What follows an undo on the page: the step applied, and the drawing it touched sent to painter and outbox.
    return () => {
      for (let i = 0; i < 20; i++) {
        const undone = applyStep(after, back)!;
        for (const id of Object.keys(step)) structuredClone(undone.entities[id]);
      }
    };
  };
  return timeRow(
    'undo of a stroke in 500 drawings',
    'the same in one drawing',
    1.2,
    await sideBySide(15, work(shotWith(500)), work(shotWith(1))),
  );
}

function saveRow(): Row {
  const doc = shotWith(500);
  const { after, step } = drawOne(doc);
  const puts = Object.keys(step).map((id) => ({
    id,
    kind: after.entities[id]!.kind,
    body: encodeEntity(after.entities[id]!),
  }));
  const sent = JSON.stringify({ saveId: newId(), baseRevision: 1, puts, deletes: [] }).length;
  const drawing = entitiesOf(after, 'drawing').find((e) => e.id in step)!;
  const own = JSON.stringify(encodeEntity(drawing)).length;
  return {
    what: 'save after one stroke in 500 drawings',
    against: 'bytes of that drawing',
    goal: 1.2,
    ratio: sent / own,
    measured: `${sent} B, ${own} B`,
  };
}

function cacheRow(): Row {
  const bound = 64 * 1024 * 1024;
  const cache = new ByteCache<number>(bound);
  let max = 0;
  for (let i = 0; i < 5000; i++) {
    cache.set(`k${(i * 7919) % 900}`, i, 1 + ((i * 104_729) % 9_000_000));
    max = Math.max(max, cache.bytes);
  }
  return {
    what: 'memory of caches',
    against: 'the byte bound set',
    goal: 1,
    ratio: max / bound,
    measured: `${max} B, ${bound} B`,
  };
}

export async function coreRows(): Promise<Row[]> {
  return [await undoRow(), saveRow(), cacheRow()];
}
