import { find, referencesOf, entitiesOf, shotOf } from '@tallow/core/document';
import { frameOfSecond, MADE_SOUNDS, soundsOf, spanOfSound } from '@tallow/core/sound';
import { staleOf, touchedOf } from '@tallow/core/derived';
import { bareRuns, touchedSlots } from '@tallow/core/edit';
import { timedLayers } from '@tallow/core/timing';
import {
  burstFlask,
  DEMO_SHOTS,
  furnaceMouth,
  NIGHT_CUES,
  nightShift,
  skylightStrike,
  theGather,
  theSwing,
  ventSmoke,
  type Recorded,
} from './index.ts';

test.each(
  DEMO_SHOTS.filter((build) => build !== furnaceMouth && build !== ventSmoke).map(
    (build) => [build.name, build] as const,
  ),
)('%s is whole: everything it points at is there, and every drawing can be reached', (_, build) => {
  const doc = build();
  const entities = Object.values(doc.entities);
  for (const entity of entities) for (const { id } of referencesOf(entity)) expect(doc.entities[id]).toBeDefined();
  const shown = new Set(entities.flatMap((e) => (e.kind === 'layer' ? Object.values(e.slots) : [])));
  for (const e of entities) if (e.kind === 'drawing') expect(shown.has(e.id)).toBe(true);
  expect(build()).toEqual(doc);
});

test('the gather follows its path, on the holds of its phases', () => {
  const doc = theGather();
  const starter = entitiesOf(doc, 'starter')[0]!;
  expect(starter).toMatchObject({ effect: 'liquid', hold: null });
  expect(starter.kind === 'starter' && find(doc, 'path', starter.pathId)).toMatchObject({ name: 'Gather', ticks: 16 });
});

test('what stands behind the effects shows on every frame', () => {
  for (const doc of [skylightStrike(), burstFlask()]) {
    const still = entitiesOf(doc, 'layer').filter((e) => find(doc, 'runlist', e.runListId)!.period === 1);
    expect(still.length).toBeGreaterThan(0);
    for (const layer of still) {
      const element = find(doc, 'element', layer.elementId)!;
      expect(element.time).toBe('cycle');
      expect(timedLayers(doc, element).map((t) => t.layer.id)).toContain(layer.id);
    }
  }
});

test('the swing stands in keys and breakdowns, with in-betweens and smears laid and nothing left to draw', () => {
  const doc = theSwing();
  const glass = entitiesOf(doc, 'layer').find((e) => e.name === 'Glass')!;
  const list = find(doc, 'runlist', glass.runListId)!;
  expect(Object.values(list.poses).filter((pose) => pose === 'key')).toHaveLength(3);
  expect(bareRuns({ layer: glass, list })).toHaveLength(0);
  const betweens = entitiesOf(doc, 'between').filter(({ layerId }) => layerId === glass.id);
  expect(betweens.map(({ slots }) => slots.length).sort()).toEqual([1, 2]);
  expect(touchedSlots(doc, entitiesOf(doc, 'between')).size).toBe(0);
  const smears = entitiesOf(doc, 'smear');
  expect(smears.map(({ form }) => form).sort()).toEqual(['stretch', 'swath', 'trail']);
  expect(smears.flatMap((smear) => touchedOf(doc, smear))).toEqual([]);
  expect(staleOf(doc, glass.elementId, 'by itself')).toEqual([]);
});

test('the night is heard: the furnace throughout, each hit on its frame, nothing past the end but what dies away', () => {
  const recorded: Recorded = (made) => ({
    asset: made.padEnd(64, '0').replace(/[^0-9a-f]/g, '0'),
    seconds: MADE_SOUNDS[made].seconds,
  });
  const doc = nightShift(recorded);
  const sounds = soundsOf(doc);
  expect(sounds.map(({ name }) => name)).toEqual(NIGHT_CUES.map(({ name }) => name));
  const { rate, length } = shotOf(doc);
  expect(spanOfSound(sounds[0]!, rate)).toEqual({ from: 0, to: length });
  NIGHT_CUES.forEach(({ made, on }, i) => {
    const [hit] = MADE_SOUNDS[made].hits;
    if (hit !== undefined) expect(frameOfSecond(sounds[i]!, rate, hit)).toBeCloseTo(on, 6);
  });
  expect(soundsOf(nightShift())).toEqual([]);
});
