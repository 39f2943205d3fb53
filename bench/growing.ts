/** Shots that are alike in the frame they show and differ in how many drawings they have. */
import {
  entitiesOf,
  newShotDocument,
  putEntities,
  shotOf,
  type Drawing,
  type RunList,
  type ShotDocument,
  type Stroke,
} from '@tallow/core/document';
import { addLayer } from '@tallow/core/edit';
import { newId } from './documents.ts';

const LAYERS = 8;
const STROKES = 60;
/** Drawings in all, of the smallest shot first: the others are measured against it. */
export const SIZES = (process.env['GROWTH'] ?? '8,80,960').split(',').map(Number);

/** A stroke across the picture; the same for the same place in the shot, so that the frame shown is the same in all of them. */
function stroke(swatch: string, layer: number, drawing: number, nth: number): Stroke {
  const count = 80;
  const column = (value: (i: number) => number) => Float32Array.from({ length: count }, (_, i) => value(i));
  return {
    kind: 'stroke',
    id: newId(),
    swatch,
    brush: { kind: 'ink', width: 10, opacity: 1, pressure: true },
    seed: nth,
    samples: {
      x: column((i) => -1500 + i * 38 + layer * 9),
      y: column((i) => nth * 30 - 900 + 60 * Math.sin(i / 9 + drawing + layer)),
      pressure: column((i) => 0.3 + 0.5 * Math.abs(Math.sin(i / 11))),
      altitude: column(() => 1),
      azimuth: column(() => 0),
    },
  };
}

/** A cycle of 3840x2160 with 8 layers on 2s, of so many drawings in all. */
export function grown(drawings: number): ShotDocument {
  const per = drawings / LAYERS;
  const facts = { width: 3840, height: 2160, rate: 24, length: 2 * per, background: '#202020' };
  let doc = newShotDocument(newId(), { name: `Grown ${drawings}`, ...facts }, newId);
  const element = entitiesOf(doc, 'element')[0]!;
  for (let i = 1; i < LAYERS; i++) doc = addLayer(doc, element.id, `L${i}`, 'body', null, newId).doc;
  const swatch = shotOf(doc).swatches[0]!;
  entitiesOf(doc, 'layer').forEach((layer, l) => {
    const made = Array.from({ length: per }, (_, d): Drawing => {
      const marks = Array.from({ length: STROKES }, (_, m) => stroke(swatch, l, d, m));
      const order = marks.map(({ id }) => id);
      return { kind: 'drawing', id: newId(), marks: Object.fromEntries(marks.map((m) => [m.id, m])), order };
    });
    const slots = made.map(({ id }) => [newId(), id] as const);
    const list = doc.entities[layer.runListId] as RunList;
    const runs = slots.map(([slot]) => ({ id: newId(), slot, length: 2 }));
    doc = putEntities(doc, ...made, { ...layer, slots: Object.fromEntries(slots) }, { ...list, runs });
  });
  return putEntities(doc, { ...entitiesOf(doc, 'element')[0]!, time: 'cycle' });
}
