/** Long work opens at the phase of the playhead, and goes on with it until a hand closes it. */
import { newShotDocument, putEntities, entitiesOf, type RunList } from '@tallow/core/document';
import { seededIds } from '@tallow/core/geometry';
import { current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { openDocument } from '../shot/document.ts';
import { beginAnew } from '../shot/opening.ts';
import { isLong, openPhaseOf } from './long-phases.ts';

const newId = seededIds(71);

/** An element of so many drawings on 2s, in two phases of equal length. */
function open(count: number): void {
  let doc = newShotDocument(
    newId(),
    { name: 'T', width: 640, height: 360, rate: 24, length: count * 2, background: null },
    newId,
  );
  const element = entitiesOf(doc, 'element')[0]!;
  const list = entitiesOf(doc, 'runlist')[0]!;
  const runs: RunList['runs'] = Array.from({ length: count }, () => ({ id: newId(), slot: newId(), length: 2 }));
  const phases = ['rise', 'fall'].map((name) => ({ id: newId(), name, length: count, colour: '#aa8844', hold: 2 }));
  doc = putEntities(doc, { ...list, runs }, { ...element, phases });
  beginAnew();
  openDocument(doc, 'Test', []);
}
const opened = () => current()!.element.phases.find(({ id }) => id === selection().phaseId)?.name ?? null;

test('an element of more than forty drawings opens at its phase; a short one does not', () => {
  open(40);
  openPhaseOf(current()!, 0);
  expect(isLong(current()!)).toBe(false);
  expect(opened()).toBeNull();
  open(41);
  expect(isLong(current()!)).toBe(true);
  openPhaseOf(current()!, 50);
  expect(opened()).toBe('fall');
});

test('it goes on with the playhead; closed by hand, it stays closed', () => {
  open(60);
  openPhaseOf(current()!, 0);
  expect(opened()).toBe('rise');
  openPhaseOf(current()!, 61);
  expect(opened()).toBe('fall');
  setSelection({ phaseId: null });
  openPhaseOf(current()!, 0);
  expect(opened()).toBeNull();
});

test('a phase that was opened by hand is left open, wherever the playhead goes', () => {
  open(60);
  openPhaseOf(current()!, 0);
  const fall = current()!.element.phases[1]!;
  setSelection({ phaseId: fall.id });
  openPhaseOf(current()!, 3);
  expect(opened()).toBe('fall');
});
