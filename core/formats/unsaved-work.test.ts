import { discRing } from '../geometry/index.ts';
import { fixture } from '../fixture.ts';
import { addMark } from '../edit/index.ts';
import { find, entitiesOf } from '../document/index.ts';
import { readUnsaved, unsavedText, type UnsavedWork } from './unsaved-work.ts';

const { base, layerId, newId, swatch } = fixture();
const disc = {
  kind: 'shape' as const,
  id: newId(),
  swatch,
  rings: [discRing(0, 0, 20)],
  rule: 'evenodd' as const,
  opacity: 1,
};
const drawn = addMark(base, layerId, 0, disc, newId);
const drawing = entitiesOf(drawn, 'drawing')[0]!;
const work: UnsavedWork = {
  shotId: base.shotId,
  shotName: 'Test',
  pending: [
    { id: drawing.id, entity: drawing, base: null },
    { id: layerId, entity: find(drawn, 'layer', layerId)!, base: find(base, 'layer', layerId)! },
    { id: newId(), entity: null, base: { ...drawing, id: newId() } },
  ],
};
const text = unsavedText({ ...work, pending: work.pending.slice(0, 2) }, '2026-01-01T00:00:00.000Z');

test('what is written is read back to the last bit', () => {
  expect(readUnsaved(text)).toEqual({ ok: { ...work, pending: work.pending.slice(0, 2) } });
});

test.each([
  ['no JSON', 'drawn', 'This file is none of unsaved work.'],
  ['something else', '{"format":"other"}', 'format: This file is none of unsaved work.'],
  ['another version', text.replace('"version":1', '"version":2'), 'version: This file is of a later version.'],
  ['a broken body', text.replace('"order":', '"ordre":'), /^things\.0\.body/],
  ['a body of another id', text.replace(drawing.id, newId()), 'things.0.body is of another id.'],
])('%s is refused, and what is wrong is said', (_, given, problem) => {
  expect(readUnsaved(given)).toEqual({ problem: expect.stringMatching(problem) as string });
});
