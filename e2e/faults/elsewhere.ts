/** Somebody who works on the shot over the interface of the server: puts drawings in before others, adds layers, renames. */
import { randomUUID } from 'node:crypto';
import {
  dropEntities,
  encodeEntity,
  find,
  putEntities,
  readEntity,
  shotOf,
  touchedBetween,
  type Entity,
  type ShotDocument,
  type Stroke as StrokeMark,
} from '../../core/document/index.ts';
import { addLayer, holdFor, newDrawingBefore, setLayer, setSwatch } from '../../core/edit/index.ts';
import { timedLayers } from '../../core/timing/index.ts';
import type { Chance } from './chance.ts';
import type { Desk } from './hand.ts';
import { placeOf, type Map2, type Stroke } from './tally.ts';

interface Answer {
  readonly status: number;
  readonly json: unknown;
}
/** null when nothing answered. */
async function ask(address: string, method: string, path: string, body?: unknown): Promise<Answer | null> {
  try {
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    });
    return { status: response.status, json: await response.json().catch(() => null) };
  } catch {
    return null;
  }
}

const newId = (): string => randomUUID();
const column = (...values: number[]): Float32Array => Float32Array.from(values);

export class Elsewhere {
  constructor(
    private readonly desk: Desk,
    private readonly chance: Chance,
    private readonly map: Map2,
  ) {}

  private markOf(number: number, swatch: string): StrokeMark {
    const { x, y } = this.map.out(placeOf(number));
    return {
      kind: 'stroke',
      id: newId(),
      swatch,
      brush: { kind: 'ink', width: 3, opacity: 1, pressure: false },
      seed: 1,
      samples: {
        x: column(x, x + 2),
        y: column(y, y + 2),
        pressure: column(1, 1),
        altitude: column(1, 1),
        azimuth: column(0, 0),
      },
    };
  }

  /** Makes one change, tried again over what others changed meanwhile. @returns whether it was made for certain. */
  async work(): Promise<boolean> {
    const number = this.chance.below(3) > 0 ? this.desk.next() : null;
    const record: Stroke | null =
      number === null
        ? null
        : {
            number,
            group: this.desk.group(),
            finished: false,
            at: performance.now(),
            drawingId: newId(),
            hand: 'elsewhere',
          };
    if (record) this.desk.strokes.push(record);
    const how = this.chance.below(4);
    for (let tries = 0; tries < 4; tries++) {
      const opened = await ask(this.desk.address, 'GET', `/shots/${this.desk.shot}`);
      if (opened?.status !== 200) return false;
      const { revision, entities } = opened.json as { revision: number; entities: unknown[] };
      const before = this.documentOf(entities);
      const after = record ? this.withDrawing(before, record) : this.changed(before, how);
      const touched = Object.values(touchedBetween(before, after)).flatMap(({ after: entity }) => entity ?? []);
      const puts = touched.map((entity) => ({ id: entity.id, kind: entity.kind, body: encodeEntity(entity) }));
      const request = { saveId: newId(), baseRevision: revision, puts, deletes: [] };
      const saved = await ask(this.desk.address, 'POST', `/shots/${this.desk.shot}/saves`, request);
      if (saved?.status === 409) continue;
      if (saved?.status !== 200) return false;
      if (record) record.finished = true;
      return true;
    }
    return false;
  }

  private documentOf(bodies: readonly unknown[]): ShotDocument {
    const entities = bodies.flatMap((body): Entity[] => {
      const read = readEntity(body);
      return 'ok' in read ? [read.ok] : [];
    });
    return { shotId: this.desk.shot, entities: Object.fromEntries(entities.map((each) => [each.id, each])) };
  }

  private layerOf(doc: ShotDocument): string {
    const element = find(doc, 'element', shotOf(doc).elements[0])!;
    const layers = timedLayers(doc, element);
    return layers[this.chance.below(layers.length)]!.layer.id;
  }

  /** A drawing of one mark before the first one of a layer: everybody's own drawings come later by it. */
  private withDrawing(doc: ShotDocument, record: Stroke): ShotDocument {
    const layerId = this.layerOf(doc);
    const made = newDrawingBefore(doc, layerId, 0, newId).doc;
    const [slot, fresh] = Object.entries(find(made, 'layer', layerId)!.slots).find(
      ([, id]) => !(id in doc.entities) && find(made, 'drawing', id),
    )!;
    const mark = this.markOf(record.number, shotOf(doc).swatches[0]!);
    const layer = find(made, 'layer', layerId)!;
    const id = record.drawingId!;
    return putEntities(
      dropEntities(made, [fresh]),
      { kind: 'drawing', id, marks: { [mark.id]: mark }, order: [mark.id] },
      { ...layer, slots: { ...layer.slots, [slot]: id } },
    );
  }

  private changed(doc: ShotDocument, how: number): ShotDocument {
    const layerId = this.layerOf(doc);
    const element = find(doc, 'element', shotOf(doc).elements[0])!;
    const many = timedLayers(doc, element).length > 4;
    if (how === 0 && !many)
      return addLayer(doc, element.id, `Layer ${newId().slice(0, 4)}`, 'body', layerId, newId).doc;
    if (how === 1) return holdFor(doc, layerId, 0, 1 + this.chance.below(4)).doc;
    if (how === 2) return setLayer(doc, layerId, { name: `Name ${newId().slice(0, 4)}` });
    const colour = `#${this.chance.below(0x1000000).toString(16).padStart(6, '0')}`;
    return setSwatch(doc, shotOf(doc).swatches[this.chance.below(5)]!, { colour });
  }
}
