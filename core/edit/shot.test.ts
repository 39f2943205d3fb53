import { everyKind } from '../testing/every-kind.ts';
import { entitiesOf, find, findAll, shotOf, touchedBetween } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { resizeShot } from './index.ts';

const doc = everyKind(seededIds(14));
const placement = entitiesOf(doc, 'placement')[0]!;
const plate = entitiesOf(doc, 'plate')[0]!;
const [ofShot, ofElement] = [
  findAll(doc, 'guide', shotOf(doc).guides).find(({ elementId }) => elementId === null)!,
  findAll(doc, 'guide', shotOf(doc).guides).find(({ elementId }) => elementId !== null)!,
];

test('the shot is resized about its middle: what is placed in it moves by half of what is added', () => {
  const next = resizeShot(doc, { width: 840, height: 260 });
  expect(shotOf(next)).toMatchObject({ width: 840, height: 260 });
  expect(find(next, 'placement', placement.id)).toEqual({ ...placement, x: placement.x + 100, y: placement.y - 50 });
  expect(find(next, 'plate', plate.id)).toEqual({ ...plate, x: plate.x + 100, y: plate.y - 50 });
  expect(find(next, 'guide', ofShot.id)).toEqual({
    ...ofShot,
    x: ofShot.x + 100,
    y: ofShot.y - 50,
    toX: ofShot.toX + 100,
    toY: ofShot.toY - 50,
  });
});

test('what lies in an element goes with it and is not touched: its guides, its drawings', () => {
  const touched = touchedBetween(doc, resizeShot(doc, { width: 840 }));
  expect(touched[ofElement.id]).toBeUndefined();
  expect(new Set(Object.values(touched).map(({ after }) => after?.kind))).toEqual(
    new Set(['shot', 'placement', 'plate', 'guide']),
  );
});

test('and back again all is where it was', () => {
  const back = resizeShot(resizeShot(doc, { width: 841, height: 99 }), { width: 640, height: 360 });
  expect(back.entities).toEqual(doc.entities);
});
