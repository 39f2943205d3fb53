import { newShotDocument, shotOf, find, entitiesOf } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { newDrawing } from './drawings.ts';
import { addElement, deleteElement } from './elements.ts';
import { addGuide, addPath, setPlan } from './plan.ts';

const newId = seededIds(41);
const doc = newShotDocument(
  newId(),
  { name: 'Shot', width: 640, height: 360, rate: 24, length: 24, background: null },
  newId,
);
const element = entitiesOf(doc, 'element')[0]!;

test('an element takes its paths and its own guides with it; the shot’s guides stay', () => {
  const other = addElement(doc, 'Other', 0, newId);
  const at = { x: 0, y: 0, toX: 10, toY: 10 };
  const own = addGuide(other.doc, element.id, 'line', at, newId);
  const shots = addGuide(own.doc, null, 'level', at, newId);
  const nodes = Float32Array.of(0, 0, 0, 0, 10, 0, 90, 0, 80, 0, 90, 0);
  const pathed = addPath(shots.doc, element.id, { nodes, closed: false }, 0, newId);
  const gone = deleteElement(pathed.doc, element.id);
  expect(shotOf(gone).guides).toEqual([shots.guideId]);
  expect(find(gone, 'guide', own.guideId)).toBeUndefined();
  expect(find(gone, 'path', pathed.pathId)).toBeUndefined();
});

test('a new drawing takes the usual hold of the phase it is made in', () => {
  const phased = setPlan(doc, element.id, {
    phases: [
      { id: newId(), name: 'Burst', length: 4, hold: 1 },
      { id: newId(), name: 'Billow', length: 20, hold: 3 },
    ],
  });
  const layerId = element.layers[0]!;
  const holds = (d: typeof doc) =>
    find(d, 'runlist', find(d, 'layer', layerId)!.runListId)!.runs.map((run) => run.length);
  const first = newDrawing(phased, layerId, 0, newId);
  expect(holds(first.doc)).toEqual([1]);
  expect(holds(newDrawing(doc, layerId, 0, newId).doc)).toEqual([2]);
});
