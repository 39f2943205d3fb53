/** A small made-up shot for tests of the core. */
import {
  find,
  newShotDocument,
  shotOf,
  type Id,
  type Layer,
  type Mark,
  type NewId,
  type Run,
  type RunList,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from './document/index.ts';
import { addMark, newDrawing, setElement } from './edit/index.ts';
import { seededIds } from './geometry/index.ts';

interface Fixture {
  readonly newId: NewId;
  readonly base: ShotDocument;
  readonly elementId: Id;
  readonly layerId: Id;
  readonly swatch: Id;
  /** An ink stroke through points, x y x y. */
  readonly stroke: (...points: number[]) => Stroke;
}

/** A shot of one open element of one line layer. */
export function fixture(seed = 1): Fixture {
  const newId = seededIds(seed);
  const format = { name: 'Test', width: 640, height: 360, rate: 24, length: 72, background: null };
  const base = newShotDocument(newId(), format, newId);
  const element = entitiesOf(base, 'element')[0]!;
  const swatch = shotOf(base).swatches[0]!;
  const stroke = (...points: number[]): Stroke => {
    const at = (offset: number) => Float32Array.from({ length: points.length / 2 }, (_, i) => points[i * 2 + offset]!);
    const all = (value: number) => new Float32Array(points.length / 2).fill(value);
    return {
      kind: 'stroke',
      id: newId(),
      swatch,
      brush: { kind: 'ink', width: 4, opacity: 1, pressure: false },
      seed: 0,
      samples: { x: at(0), y: at(1), pressure: all(1), altitude: all(1.5), azimuth: all(0) },
    };
  };
  return { newId, base, elementId: element.id, layerId: element.layers[0]!, swatch, stroke };
}

/** The fixture's shot with so many drawings on its layer, each of one mark and held for two frames, as a cycle. */
export function cycleOf(
  { base, elementId, layerId, newId }: Fixture,
  drawings: number,
  markOf: (drawing: number) => Mark,
): ShotDocument {
  let doc = setElement(base, elementId, { time: 'cycle' });
  for (let i = 0; i < drawings; i++) {
    const made = i === 0 ? { doc, frame: 0 } : newDrawing(doc, layerId, i * 2 - 1, newId);
    doc = addMark(made.doc, layerId, made.frame, markOf(i), newId);
  }
  return doc;
}

export const layerOf = (doc: ShotDocument, layerId: Id): Layer => find(doc, 'layer', layerId)!;
export const fixtureList = (doc: ShotDocument, layerId: Id): RunList =>
  find(doc, 'runlist', layerOf(doc, layerId).runListId)!;
export const runsOf = (doc: ShotDocument, layerId: Id): readonly Run[] => fixtureList(doc, layerId).runs;
