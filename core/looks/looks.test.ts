/** What every look promises. A look that is new in the list is held to all of it. */
import { constant, newShotDocument, readEntity, type AppliedLook, entitiesOf } from '../document/index.ts';
import { resolved } from '../compose/index.ts';
import { newLook } from '../edit/index.ts';
import { seededIds } from '../geometry/index.ts';
import { LOOKS, lookKinds, type Look } from './index.ts';

const newId = seededIds(5);
const doc = newShotDocument(
  newId(),
  { name: 'T', width: 640, height: 360, rate: 24, length: 24, background: null },
  newId,
);
const layer = entitiesOf(doc, 'layer')[0]!;
const TURN = 24;

/** A look's choices in every combination. */
function choicesOf({ choices }: Look): Record<string, string>[] {
  return choices.reduce<Record<string, string>[]>(
    (all, { key, options }) => all.flatMap((each) => options.map((option) => ({ ...each, [key]: option }))),
    [{}],
  );
}

describe.each(lookKinds())('%s', (kind) => {
  const look = LOOKS[kind];
  const preset = newLook(doc, kind, newId);
  const problems = (applied: unknown) => {
    const read = readEntity({ ...layer, finishes: [applied] });
    return 'problems' in read ? read.problems.map(({ field }) => field) : [];
  };

  test('its usual settings are allowed, lie in their ranges and do something', () => {
    expect(problems(preset)).toEqual([]);
    for (const { default: number, min, max } of look.fields) {
      expect(number).toBeGreaterThanOrEqual(min);
      expect(number).toBeLessThanOrEqual(max);
    }
    expect(look.acts(Object.fromEntries(look.fields.map((field) => [field.key, field.default])))).toBe(true);
    expect(look.paint ?? look.moves).toBeDefined();
  });

  test('what is out of range, unknown or missing is refused by name', () => {
    for (const { key, max } of look.fields) {
      const numbers = { ...preset.numbers, [key]: constant(max + 1) };
      expect(problems({ ...preset, numbers })).toEqual([`finishes.0.numbers.${key}.constant`]);
    }
    for (const { key } of look.choices)
      expect(problems({ ...preset, choices: { ...preset.choices, [key]: 'odd' } })).toEqual([
        `finishes.0.choices.${key}`,
      ]);
    expect(problems({ ...preset, surprise: 1 })).toEqual(['finishes.0']);
    if (look.colour === 'own') expect(problems({ ...preset, swatch: null })).toEqual(['finishes.0.swatch']);
  });

  test('what changes from frame to frame goes round with the cycle', () => {
    for (const choices of choicesOf(look)) {
      const applied: AppliedLook = { ...preset, choices };
      const at = (frame: number) => resolved([applied], frame, TURN)[0]!.at;
      for (let frame = 0; frame < TURN; frame += 5) expect(at(frame)).toBeGreaterThanOrEqual(0);
      // A share of the turn comes round to its beginning; one of many begins anew with the turn.
      if (at(1) > 0 && at(1) < 1) expect(at(TURN - 1)).toBeCloseTo(1 - 1 / TURN);
      if (look.moves && look.at) {
        const place = { x: 31, y: -17 };
        const numbers = Object.fromEntries(look.fields.map((field) => [field.key, field.default]));
        const point = (share: number) =>
          look.moves!({ numbers, choices, swatch: null, seed: 9, at: share }).move(place);
        expect(Math.hypot(point(0).x - point(1).x, point(0).y - point(1).y)).toBeLessThan(1e-6);
      }
    }
  });

  test('it reaches no less with a larger radius, and every field does something with some choices', () => {
    const numbers = Object.fromEntries(look.fields.map((field) => [field.key, field.default]));
    for (const choices of choicesOf(look)) {
      const reach = look.reach?.(numbers, choices) ?? 0;
      expect(reach).toBeGreaterThanOrEqual(0);
      const larger = Object.fromEntries(Object.entries(numbers).map(([key, n]) => [key, key === 'radius' ? 2 * n : n]));
      expect(look.reach?.(larger, choices) ?? 0).toBeGreaterThanOrEqual(reach);
    }
    for (const { key } of look.fields)
      expect(choicesOf(look).some((choices) => look.uses?.(key, choices) ?? true)).toBe(true);
  });
});

test('a look nobody has heard of is refused', () => {
  const read = readEntity({ ...layer, finishes: [{ ...newLook(doc, 'glow', newId), kind: 'sparkle' }] });
  expect(read).toMatchObject({ problems: [{ field: 'finishes.0.kind' }] });
});

test('one that is put into the list at run time is set, stored and worked out', () => {
  const all = LOOKS as Record<string, Look>;
  all['sparkle'] = {
    name: 'Sparkle',
    does: 'a test',
    colour: 'none',
    fields: [{ key: 'much', label: 'Much', unit: '', min: 0, max: 3, default: 2 }],
    choices: [],
    acts: ({ much }) => much! > 0,
    reach: ({ much }) => 7 * much!,
    paint: (looked) => looked,
  };
  try {
    const sparkle = newLook(doc, 'sparkle' as AppliedLook['kind'], newId);
    const body = { ...layer, finishes: [sparkle] };
    expect(readEntity(body)).toEqual({ ok: body });
    expect(resolved([sparkle], 0, null)).toMatchObject([{ kind: 'sparkle', numbers: { much: 2 } }]);
  } finally {
    Reflect.deleteProperty(all, 'sparkle');
  }
});
