import { newShotDocument, shotOf, find, entitiesOf } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { newDrawing } from './drawings.ts';
import { addElement, deleteElement, fitAxis, setElement } from './elements.ts';
import { addLightOf } from './lights.ts';
import { setPlacements } from './placements.ts';
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

const DRAWN = { left: -30, top: -90, right: 50, bottom: 40 };

test('an axis that nobody has set is led along what is drawn, from its foot to its head', () => {
  const fitted = find(fitAxis(doc, element.id, DRAWN), 'element', element.id)!;
  expect(fitted.anchor).toEqual({ x: 10, y: 40 });
  expect(fitted.tip).toEqual({ x: 10, y: -90 });
});

const use = entitiesOf(doc, 'placement')[0]!;
test.each([
  ['its tip is set', (d: typeof doc) => setElement(d, element.id, { tip: { x: 0, y: -50 } })],
  ['its anchor is set', (d: typeof doc) => setPlan(d, element.id, { anchor: { x: 4, y: 0 } })],
  ['a use of it leans', (d: typeof doc) => setPlacements(d, [use.id], { skew: 0.2 })],
  ['a light stands on its anchor', (d: typeof doc) => addLightOf(d, use.id, newId).doc],
])('an axis stays where it is when %s', (_, set) => {
  const before = set(doc);
  expect(before).not.toBe(doc);
  expect(fitAxis(before, element.id, DRAWN)).toBe(before);
});

test('an axis stays where it is when nothing is drawn', () => {
  const nothing = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  expect(fitAxis(doc, element.id, nothing)).toBe(doc);
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
