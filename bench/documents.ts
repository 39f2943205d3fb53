/** Documents to measure with: a shot of so many drawings of a few strokes each. */
import {
  newShotDocument,
  putEntities,
  shotOf,
  type Drawing,
  type RunList,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '@tallow/core/document';
import { addLayer } from '@tallow/core/edit';
import { seededIds, seededRandom } from '@tallow/core/geometry';

const random = seededRandom(9);
export const newId = seededIds(77);

/** A wandering stroke of so many samples. */
export function wandering(swatch: string, samples: number): Stroke {
  let [x, y] = [random() * 1200 - 600, random() * 700 - 350];
  const xs = Float32Array.from({ length: samples }, () => (x += random() * 10 - 5));
  const ys = Float32Array.from({ length: samples }, () => (y += random() * 10 - 5));
  const flat = (v: number) => new Float32Array(samples).fill(v);
  return {
    kind: 'stroke',
    id: newId(),
    swatch,
    brush: { kind: 'ink', width: 12, opacity: 1, pressure: true },
    seed: 1,
    samples: { x: xs, y: ys, pressure: xs.map(() => random()), altitude: flat(1), azimuth: flat(0) },
  };
}

/** A shot with `layers` layers of `drawings` drawings on 2s. */
export function shotWith(drawings: number, layers = 1, strokes = 4, length = drawings * 2): ShotDocument {
  let doc = newShotDocument(
    newId(),
    { name: 'Bench', width: 1920, height: 1080, rate: 24, length, background: '#101010' },
    newId,
  );
  const element = entitiesOf(doc, 'element')[0]!;
  for (let i = 1; i < layers; i++) doc = addLayer(doc, element.id, `L${i}`, 'body', null, newId).doc;
  const swatch = shotOf(doc).swatches[0]!;
  for (const layer of entitiesOf(doc, 'layer')) {
    const made = Array.from({ length: drawings }, (): Drawing => {
      const marks = Array.from({ length: strokes }, () => wandering(swatch, 120));
      return {
        kind: 'drawing',
        id: newId(),
        marks: Object.fromEntries(marks.map((m) => [m.id, m])),
        order: marks.map((m) => m.id),
      };
    });
    const slots = made.map((drawing) => [newId(), drawing.id] as const);
    const list = doc.entities[layer.runListId] as RunList;
    doc = putEntities(
      doc,
      ...made,
      { ...layer, slots: Object.fromEntries(slots) },
      { ...list, runs: slots.map(([slot]) => ({ id: newId(), slot, length: 2 })) },
    );
  }
  return doc;
}
