/** The effects that come with Tallow: what the starters lay, standing where they belong, in the Glasshouse's own names. */
import { find, putEntities, shotOf, type Effect, type ShotDocument } from '@tallow/core/document';
import { layStarter } from '@tallow/core/edit';
import { settingsOf, type Settings } from '@tallow/core/controls';
import { seededIds } from '@tallow/core/geometry';
import type { ShelfKind } from '@tallow/core/shelf';
import { fitted, layAll, newStarter, sceneOf, standingPlace, starterOf } from '@tallow/core/starters';
import { elementLength } from '@tallow/core/timing';
import { addElementTo, finishedWith, newShot, type Look } from './scene.ts';

/** An effect as it is laid, and what the shelf says of it. */
export interface Shipped {
  readonly name: string;
  readonly kind: ShelfKind;
  readonly tags: readonly string[];
  readonly note: string;
  readonly build: () => ShotDocument;
}

interface Laid {
  readonly effect: Effect;
  readonly preset: string;
  readonly seed: number;
  readonly settings?: Settings;
}

/** Looks of layers by their names, where there are such. */
const LOOKS: Readonly<Record<string, readonly Look[]>> = {
  'Fire body': [{ kind: 'glow', numbers: { radius: 40, strength: 30, radii: 3 } }],
  'Fire line': [{ kind: 'line colour', numbers: { darker: 42 } }],
  Bolt: [{ kind: 'glow', numbers: { radius: 50, strength: 100, radii: 3 } }],
  'Bolt core': [{ kind: 'glow', numbers: { radius: 12, strength: 90, radii: 1 } }],
  'Burst flash': [{ kind: 'glow', numbers: { radius: 70, strength: 90, radii: 2 } }],
  'Burst core': [{ kind: 'glow', numbers: { radius: 30, strength: 70, radii: 2 } }],
  'Burst sparks': [{ kind: 'glow', numbers: { radius: 10, strength: 90, radii: 1 } }],
};

/** What effects lie on, by kind: dark enough for light, light enough for dark smoke. */
const PAPERS: Readonly<Partial<Record<ShelfKind, string>>> = { smoke: '#1b222b', liquid: '#1d1a20' };

const hex = (nth: number): string => nth.toString(16).padStart(3, '0');

/** The shot of an effect, as long as it is. */
function built(nth: number, name: string, kind: ShelfKind, { effect, preset, seed, settings }: Laid): ShotDocument {
  const newId = seededIds(90_000 + nth);
  const id = `7a110000-0000-4000-8000-000000002${hex(nth)}`;
  const middle = { x: 960, y: 540 };
  const start = newShot(id, { name, length: 24, background: PAPERS[kind] ?? '#17130f' }, [], newId);
  const { doc, elementId } = addElementTo(start, name, middle, newId);
  const starterKind = starterOf(effect);
  const chosen = starterKind.presets.find((each) => each.name === preset);
  if (!chosen) throw new Error(`There is no preset “${preset}” of ${effect}`);
  const picture = { left: -960, top: -540, right: 960, bottom: 540 };
  const ground = { picture, bases: [], anchor: null, floors: [] };
  const at = standingPlace(starterKind, ground, null);
  const starter = { ...newStarter(find(doc, 'element', elementId)!, effect, chosen, seed, newId), ...at };
  const own = settingsOf(starterKind, { ...chosen.settings, ...settings });
  const sized = {
    ...starter,
    settings: fitted(starterKind, own, ground, at, false, (each) => sceneOf(doc, { ...starter, settings: each })),
  };
  const laid = layStarter(doc, sized, layAll(starterKind, sceneOf(doc, sized))!, newId);
  const anchored = putEntities(laid, { ...find(laid, 'element', elementId)!, anchor: at });
  const names = new Set(Object.values(anchored.entities).flatMap((each) => (each.kind === 'layer' ? [each.name] : [])));
  const looks = Object.fromEntries(Object.entries(LOOKS).filter(([layer]) => names.has(layer)));
  const finished = finishedWith(anchored, looks, newId);
  const length = elementLength(finished, find(finished, 'element', elementId)!);
  return putEntities(finished, { ...shotOf(finished), length });
}

type Row = readonly [name: string, kind: ShelfKind, tags: string, laid: Laid, note?: string];

const ROWS: readonly Row[] = [
  ['Hearth fire', 'fire', 'furnace warm', { effect: 'fire', preset: 'Hearth', seed: 11 }],
  ['Lamp flame', 'fire', 'candle small', { effect: 'fire', preset: 'Candle', seed: 3 }],
  ['Torch in the wind', 'fire', 'torch wind', { effect: 'fire', preset: 'Torch', seed: 5 }],
  ['Blaze', 'fire', 'large angry', { effect: 'fire', preset: 'Blaze', seed: 8 }],
  ['Plume', 'smoke', 'slow rising', { effect: 'smoke', preset: 'Plume', seed: 4 }],
  ['Chimney smoke', 'smoke', 'roof drifting', { effect: 'smoke', preset: 'Chimney', seed: 6 }],
  ['Steam', 'smoke', 'water pale', { effect: 'smoke', preset: 'Steam', seed: 2 }],
  ['Puff', 'smoke', 'once short', { effect: 'smoke', preset: 'Puff', seed: 9 }],
  ['Two vents', 'smoke', 'roof', { effect: 'smoke', preset: 'Vents', seed: 7 }],
  ['Strike', 'lightning', 'storm sky', { effect: 'bolt', preset: 'Strike', seed: 12 }],
  ['Forked strike', 'lightning', 'storm sky branches', { effect: 'bolt', preset: 'Many forks', seed: 13 }],
  ['Crackle', 'lightning', 'current small', { effect: 'bolt', preset: 'Crackle', seed: 14 }],
  ['Burst', 'explosion', 'flask fragments', { effect: 'burst', preset: 'Burst', seed: 21 }],
  ['Burst from the floor', 'explosion', 'ground dust', { effect: 'burst', preset: 'From a floor', seed: 22 }],
  ['Blast one way', 'explosion', 'furnace door', { effect: 'burst', preset: 'One way', seed: 23 }],
  ['Dust ring', 'explosion', 'ground landing', { effect: 'burst', preset: 'Dust ring', seed: 24 }],
  ['Gob of glass', 'liquid', 'hot glass drop', { effect: 'liquid', preset: 'Gob', seed: 31 }],
  ['Crown splash', 'liquid', 'water drop', { effect: 'liquid', preset: 'Crown', seed: 32 }],
  ['Streams', 'liquid', 'pouring drops', { effect: 'liquid', preset: 'Streams', seed: 33 }],
  ['Trough', 'liquid', 'surface waves', { effect: 'liquid', preset: 'Surface', seed: 34 }],
  ['Spark fountain', 'sparks', 'grinding round', { effect: 'sparks', preset: 'Fountain', seed: 41 }],
  ['Grinding sparks', 'sparks', 'once wheel', { effect: 'sparks', preset: 'Spray', seed: 42 }],
  ['Embers', 'sparks', 'rising slow', { effect: 'sparks', preset: 'Embers', seed: 43 }],
  ['Shock ring', 'impact', 'ground wave', { effect: 'ring', preset: 'On the floor', seed: 51 }],
  ['Ring in the air', 'impact', 'wave', { effect: 'ring', preset: 'In the air', seed: 52 }],
  ['Ripple', 'liquid', 'water surface', { effect: 'ripple', preset: 'Ripple', seed: 53 }],
];

/** Every effect that ships, each built when it is asked for. */
export const SHIPPED: readonly Shipped[] = ROWS.map(([name, kind, tags, laid, note = ''], nth) => ({
  name,
  kind,
  tags: tags.split(' '),
  note,
  build: () => built(nth, name, kind, laid),
}));
