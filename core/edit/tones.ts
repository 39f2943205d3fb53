/** Laying tone cut from a body on layers of its own, and laying it again when the body, the light or the settings change. */
import {
  find,
  findAll,
  newLayer,
  putEntities,
  shotOf,
  TONE_KEYS,
  type Drawing,
  type Element,
  type Folder,
  type Id,
  type Layer,
  type NewId,
  type Shape,
  type ShotDocument,
  type Swatch,
  type SwatchRole,
  type Tone,
  type ToneKey,
  entitiesOf,
  marksInOrder,
} from '../document/index.ts';
import { distance, shifted } from '../colour/index.ts';
import { joinedAreas, withoutArea, type Point } from '../geometry/index.ts';
import type { ToneSettings, ToneWork } from '../paint/index.ts';
import { litSlots, fingerprintOf } from '../derived/index.ts';
import { listOf } from './layers.ts';
import { addSwatch } from './shot.ts';

/** What tone begins with. */
const FIRST_TONE: ToneSettings = { depth: 70, shade: 0.5, light: 0.35, steps: 1, rim: 3 };

/** px² under which parts of a body are left out. */
const SPECK = 16;

/** How each tone is called, and how far its colour is from the body's: lightness as in Oklch. */
const NAMES: Readonly<Record<ToneKey, { name: string; role: SwatchRole; lighter: number }>> = {
  shade: { name: 'shade', role: 'shade', lighter: -0.15 },
  deep: { name: 'deep shade', role: 'shade', lighter: -0.27 },
  light: { name: 'light', role: 'light', lighter: 0.14 },
};
/** How far a swatch of the palette may be from what a tone is to be, to be taken for it: Oklab distance. */
const NEAR = 0.1;

/** Whether a layer is laid by tone: where it is empty, nothing is missing. */
export const isByTone = (doc: ShotDocument, layerId: Id): boolean =>
  entitiesOf(doc, 'tone').some(({ layers }) => Object.values(layers).includes(layerId));

/** Layers of the tone that is cut from some bodies. */
export const tonesOf = (doc: ShotDocument, bodyIds: ReadonlySet<Id>): Id[] =>
  entitiesOf(doc, 'tone').flatMap(({ bodyId, layers }) => (bodyIds.has(bodyId) ? Object.values(layers) : []));

/** The tone a layer belongs to: as its body, or as one of its layers. */
export const toneAbout = (doc: ShotDocument, layerId: Id): Tone | undefined =>
  entitiesOf(doc, 'tone').find((e) => e.bodyId === layerId || Object.values(e.layers).includes(layerId));

/** One area of all shapes of a drawing, without what holes cut out of them. */
function bodyOf(doc: ShotDocument, drawing: Drawing): Float32Array[] {
  const all = marksInOrder(drawing).filter((m): m is Shape => m.kind === 'shape');
  const cuts = (mark: Shape) => find(doc, 'swatch', mark.swatch)?.role === 'hole';
  if (all.some(cuts)) {
    // In their order: what is painted over a hole is there again.
    let area: Float32Array[] = [];
    for (const mark of all)
      area = cuts(mark) ? withoutArea(area, mark.rings, SPECK) : joinedAreas([area, mark.rings], SPECK);
    return area;
  }
  const [only] = all;
  if (!only) return [];
  return all.length === 1 && only.rule === 'evenodd'
    ? [...only.rings]
    : joinedAreas(
        all.map(({ rings }) => rings),
        SPECK,
      );
}

const linesOf = (drawing: Drawing): Point[][] =>
  Object.values(drawing.marks).flatMap((mark) =>
    mark.kind === 'stroke' && !mark.unseen
      ? [Array.from(mark.samples.x, (x, i) => ({ x, y: mark.samples.y[i]! }))]
      : [],
  );

/** A slot of a body that tone can be cut for, with what it is cut from. */
export interface ToneSlot {
  readonly slot: Id;
  readonly work: ToneWork;
  readonly print: string;
}

/** What tone is cut from on each slot of its body; slots whose drawings are not loaded are left out. */
export function toneSlots(
  doc: ShotDocument,
  tone: Pick<Tone, 'bodyId' | 'details'> & ToneSettings,
  wanted: ReadonlySet<Id> | null = null,
): ToneSlot[] {
  const { depth, shade, light, steps, rim } = tone;
  return litSlots(doc, tone, wanted).map((lit) => ({
    slot: lit.slot,
    work: {
      rings: bodyOf(doc, lit.body),
      details: lit.details.flatMap(linesOf),
      settings: { depth, shade, light, steps, rim },
      light: lit.light,
    },
    print: lit.print,
  }));
}

/** A layer for a tone, tied to its body: shade right over it, light right under the line. */
function withLayer(doc: ShotDocument, tone: Tone, key: ToneKey, newId: NewId): { doc: ShotDocument; layer: Layer } {
  const known = find(doc, 'layer', tone.layers[key]);
  if (known) return { doc, layer: known };
  const body = find(doc, 'layer', tone.bodyId)!;
  const { layer: made } = newLayer(
    body.elementId,
    `${body.name.slice(0, 180).toWellFormed()} ${NAMES[key].name}`,
    'tone',
    newId,
  );
  const layer: Layer = { ...made, runListId: body.runListId, shift: body.shift };
  const into: Element | Folder = listOf(doc, body.id)!;
  const at = into.layers.indexOf(body.id);
  const above = into.layers.slice(0, at);
  const shadeAt = above.indexOf(tone.layers.shade ?? '');
  const lineAt = above.findLastIndex((id) => find(doc, 'layer', id)?.role === 'line');
  const index = key === 'shade' ? at : key === 'deep' ? (shadeAt < 0 ? at : shadeAt) : lineAt < 0 ? 0 : lineAt + 1;
  return { doc: putEntities(doc, layer, { ...into, layers: into.layers.toSpliced(index, 0, layer.id) }), layer };
}

/** The swatch most of a body's marks are painted with, of those that are loaded. */
function bodySwatch(doc: ShotDocument, body: Layer): Swatch | undefined {
  const counts = new Map<Id, number>();
  for (const id of Object.values(body.slots))
    for (const mark of Object.values(find(doc, 'drawing', id)?.marks ?? {}))
      if (mark.kind === 'shape') counts.set(mark.swatch, (counts.get(mark.swatch) ?? 0) + 1);
  const [max] = [...counts].sort((a, b) => b[1] - a[1]);
  return find(doc, 'swatch', max?.[0]);
}

/** The swatch of a tone: its own, one of the palette that is about what the body's colour is in that tone, else a new one. */
function withSwatch(doc: ShotDocument, tone: Tone, key: ToneKey, newId: NewId): { doc: ShotDocument; swatch: Id } {
  const known = tone.swatches[key];
  if (known && find(doc, 'swatch', known)) return { doc, swatch: known };
  const { name, role, lighter } = NAMES[key];
  const body = bodySwatch(doc, find(doc, 'layer', tone.bodyId)!);
  const colour = shifted(body?.colour ?? '#808080', { hue: 0, chroma: 1, lightness: lighter });
  const taken = new Set(Object.values(tone.swatches));
  const found = findAll(doc, 'swatch', shotOf(doc).swatches)
    .filter((s) => s.role === role && !s.gradient && !taken.has(s.id))
    .map((s) => ({ id: s.id, far: distance(s.colour, colour) }))
    .sort((a, b) => a.far - b.far)[0];
  if (found && found.far < NEAR) return { doc, swatch: found.id };
  const made = addSwatch(
    doc,
    { name: `${(body?.name ?? '').slice(0, 150).toWellFormed()} ${name}`.trim(), role, colour },
    newId,
  );
  return { doc: made.doc, swatch: made.swatchId };
}

/** Tone as it was cut for a slot. */
export interface CutTone {
  readonly slot: Id;
  readonly print: string;
  readonly shapes: Partial<Record<ToneKey, Float32Array[]>>;
}

/**
 * Lays tone: on new layers tied to the body the first time, on the same ones after that. Drawings changed by hand
 * are kept; layers that were deleted stay deleted.
 * @param tone as it is to be from now on.
 */
export function layTone(doc: ShotDocument, tone: Tone, cuts: readonly CutTone[], newId: NewId): ShotDocument {
  const old = find(doc, 'tone', tone.id);
  let [next, now] = [doc, tone];
  for (const key of TONE_KEYS) {
    const filled = cuts.some(({ shapes }) => (shapes[key]?.length ?? 0) > 0);
    const gone = tone.layers[key] !== undefined && !find(doc, 'layer', tone.layers[key]);
    if (gone || (!filled && !tone.layers[key])) continue;
    const placed = withLayer(next, now, key, newId);
    const painted = withSwatch(placed.doc, now, key, newId);
    next = painted.doc;
    now = {
      ...now,
      layers: { ...now.layers, [key]: placed.layer.id },
      swatches: { ...now.swatches, [key]: painted.swatch },
    };
    const slots: Record<Id, Id> = { ...placed.layer.slots };
    const prints: Record<Id, string> = { ...old?.laid[placed.layer.id] };
    const made: Drawing[] = [];
    for (const { slot, shapes } of cuts) {
      const drawing = find(next, 'drawing', slots[slot]);
      if (drawing && drawing.order.length > 0 && fingerprintOf(drawing) !== prints[slot]) continue;
      const rings = shapes[key] ?? [];
      const mark: Shape = {
        kind: 'shape',
        id: drawing?.order[0] ?? newId(),
        swatch: painted.swatch,
        rings,
        rule: 'evenodd',
        opacity: 1,
      };
      const id = drawing?.id ?? newId();
      const laid: Drawing = {
        kind: 'drawing',
        id,
        marks: rings.length > 0 ? { [mark.id]: mark } : {},
        order: rings.length > 0 ? [mark.id] : [],
      };
      made.push(laid);
      slots[slot] = id;
      prints[slot] = fingerprintOf(laid);
    }
    next = putEntities(next, ...made, { ...placed.layer, slots });
    now = { ...now, laid: { ...now.laid, [placed.layer.id]: prints } };
  }
  const hangsOn = { ...tone.hangsOn, ...Object.fromEntries(cuts.map(({ slot, print }) => [slot, print])) };
  return putEntities(next, { ...now, hangsOn });
}

/** A tone for a body that has none yet. */
export const newTone = (body: Layer, newId: NewId): Tone => ({
  kind: 'tone',
  id: newId(),
  elementId: body.elementId,
  bodyId: body.id,
  details: [],
  ...FIRST_TONE,
  everywhere: false,
  layers: {},
  swatches: {},
  laid: {},
  hangsOn: {},
});
