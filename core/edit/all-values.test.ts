import fc from 'fast-check';
import { cycleOf, fixture } from '../fixture.ts';
import { entitiesOf, find, keysIn, putEntities, shotOf, valueAt } from '../document/index.ts';
import { lightsOn } from '../render/index.ts';
import { elementLength } from '../timing/index.ts';
import {
  addLayer,
  addLook,
  addLightOf,
  changingValues,
  easeKey,
  moveKey,
  newLook,
  placeElement,
  setCameraKey,
  setKey,
  setLightKey,
  setLightValue,
  startAt,
  takeKey,
} from './index.ts';

const made = fixture(33);
const { newId, elementId } = made;
const base = cycleOf(made, 6, (i) => made.stroke(i, 0, i, 9));
const use = entitiesOf(base, 'placement').find((each) => each.elementId === elementId)!;
const turn = elementLength(base, find(base, 'element', elementId)!);
const lit = addLightOf(base, use.id, newId);
const lightId = lit.lightId!;
const moving = setLightValue(
  setLightKey(
    setKey(setCameraKey(lit.doc, 'zoom', 4, 'soft'), use.id, 'angle', 2, null, 'straight'),
    lightId,
    'strength',
    1,
    turn,
    'soft',
  ),
  lightId,
  'strength',
  turn - 1,
  0.9,
);

test('everything that changes is listed, the camera first, with what it is of and in whose time', () => {
  expect(changingValues(base)).toEqual([]);
  expect(changingValues(moving).map(({ owner, label, round }) => [owner, label, round])).toEqual([
    ['Camera', 'zoom', null],
    [find(moving, 'light', lightId)!.name, 'strength', turn],
    [find(moving, 'element', elementId)!.name, 'turn', null],
  ]);
});

test('the list and the names in it hang on how things lie, not on the order in which they were last changed', () => {
  const planeId = shotOf(moving).planes[0]!;
  let doc = placeElement(moving, elementId, { planeId }, { start: 3, x: 0, y: 0 }, newId).doc;
  for (const { id } of entitiesOf(doc, 'placement')) doc = setKey(doc, id, 'angle', 2, null, 'straight');
  doc = addLayer(doc, elementId, 'Body', 'body', null, newId).doc;
  for (const { id } of entitiesOf(doc, 'layer').filter((layer) => layer.elementId === elementId))
    doc = addLook(doc, id, {
      ...newLook(doc, 'blur', newId),
      numbers: { radius: { keys: [{ frame: 0, value: 4, ease: 'soft' }] } },
    });
  const listed = changingValues(doc).map(({ owner, label }) => `${owner}: ${label}`);
  expect(listed).toHaveLength(new Set(listed).size);
  const reloaded = { ...doc, entities: Object.fromEntries(Object.entries(doc.entities).reverse()) };
  expect(changingValues(reloaded).map(({ owner, label }) => `${owner}: ${label}`)).toEqual(listed);
});

test('what an element is drawn on is listed with it, in its own time; a look of it too', () => {
  const layer = entitiesOf(base, 'layer').find((each) => each.elementId === elementId)!;
  const keyed = {
    keys: [
      { frame: 1, value: 0.5, ease: 'soft' as const },
      { frame: 4, value: 1, ease: 'soft' as const },
    ],
  };
  const blurred = addLook(base, elementId, newLook(base, 'blur', newId));
  const blur = find(blurred, 'element', elementId)!.finishes[0]!;
  const radius = Object.keys(blur.numbers)[0]!;
  const doc = putEntities(
    blurred,
    { ...layer, opacity: keyed, shift: { ...layer.shift, angle: keyed } },
    {
      ...find(blurred, 'element', elementId)!,
      light: keyed,
      finishes: [{ ...blur, numbers: { ...blur.numbers, [radius]: keyed } }],
    },
  );
  const all = changingValues(doc);
  const { name } = find(doc, 'element', elementId)!;
  expect(all.map(({ owner, label, round, value }) => [owner, label.split(',')[0], round, value])).toEqual([
    [name, 'light from', turn, keyed],
    [name, 'blur', turn, keyed],
    [`${name}, ${layer.name}`, 'opacity', turn, keyed],
    [`${name}, ${layer.name}`, 'turn', turn, keyed],
  ]);
  // Each is changed by itself, whichever it is of its owner's.
  for (const [i, own] of all.entries()) {
    const next = changingValues(moveKey(doc, own, keyed.keys[0]!, 2, 0.75));
    expect(next.map(({ value }) => keysIn(value)[0]!.frame)).toEqual(all.map((_, k) => (k === i ? 2 : 1)));
  }
});

test('a key is moved in time and number within its range; all other keys and values stay', () => {
  fc.assert(
    fc.property(
      fc.nat(2),
      fc.integer({ min: 0, max: 30 }),
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      (which, frame, number) => {
        const all = changingValues(moving);
        const own = all[which]!;
        const [key, ...others] = keysIn(own.value);
        const next = changingValues(moveKey(moving, own, key!, frame, number));
        next.forEach((each, i) => {
          if (i !== which) expect(each.value).toBe(all[i]!.value);
        });
        const keys = keysIn(next[which]!.value);
        const moved = keys.find((each) => each.frame === frame)!;
        expect(moved.value).toBe(Math.min(own.max, Math.max(own.min, number)));
        expect(moved.ease).toBe(key!.ease);
        for (const other of others) if (other.frame !== frame) expect(keys).toContainEqual(other);
        expect(keys.map((each) => each.frame)).toEqual(keys.map((each) => each.frame).sort((a, b) => a - b));
      },
    ),
  );
});

test('how it goes on is set for one key; the last one taken away leaves the value as it was there', () => {
  const [zoom] = changingValues(moving);
  const [key] = keysIn(zoom!.value);
  expect(keysIn(changingValues(easeKey(moving, zoom!, key!, 'hold'))[0]!.value)[0]!.ease).toBe('hold');
  const without = takeKey(moving, zoom!, key!.frame);
  expect(changingValues(without)).toHaveLength(2);
  expect(valueAt(shotOf(without).camera.zoom, 0, null)).toBe(key!.value);
});

test('keys of a light keep to the drawings of what it shines from', () => {
  const later = startAt(moving, elementId, 5);
  const strengths = (doc: typeof moving) =>
    Array.from({ length: turn }, (_, i) => lightsOn(doc, use.start + i)[0]?.strength ?? 0);
  const [before, after] = [strengths(moving), strengths(later)];
  after.forEach((strength, i) => {
    expect(strength).toBeCloseTo(before[(i + 5) % turn]!, 9);
  });
});
