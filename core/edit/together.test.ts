import fc from 'fast-check';
import {
  mergeEntity,
  newShotDocument,
  same,
  shotOf,
  type Drawing,
  type Element,
  type Entity,
  type Id,
  type Layer,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import { elementLength, shownOn, timedLayers } from '../timing/index.ts';
import { addLayer, addMark, addSwatch, holdFor, newDrawing, setLayer } from './index.ts';

/** A server that keeps bodies by revision, and people who edit and save as the page does. */
class Server {
  revision = 1;
  readonly bodies = new Map<Id, { entity: Entity; revision: number }>();

  constructor(doc: ShotDocument) {
    for (const entity of Object.values(doc.entities)) this.bodies.set(entity.id, { entity, revision: 1 });
  }

  since(revision: number): Entity[] {
    return [...this.bodies.values()].filter((each) => each.revision > revision).map(({ entity }) => entity);
  }

  /** Takes a save, or answers false when one of its entities is newer than the base. */
  save(base: number, puts: readonly Entity[]): boolean {
    if (puts.some((put) => (this.bodies.get(put.id)?.revision ?? 0) > base)) return false;
    this.revision += 1;
    for (const entity of puts) this.bodies.set(entity.id, { entity, revision: this.revision });
    return true;
  }
}

class Person {
  private readonly acknowledged: Map<Id, Entity>;
  private revision = 1;
  readonly drawn: Id[] = [];

  constructor(
    public doc: ShotDocument,
    private readonly server: Server,
    private readonly newId: () => Id,
  ) {
    this.acknowledged = new Map(Object.entries(doc.entities));
  }

  private takeIn(): void {
    const entities = { ...this.doc.entities };
    for (const theirs of this.server.since(this.revision)) {
      const base = this.acknowledged.get(theirs.id);
      const mine = entities[theirs.id];
      this.acknowledged.set(theirs.id, theirs);
      entities[theirs.id] = mine === base || !mine ? theirs : mergeEntity(base ?? mine, mine, theirs).merged;
    }
    this.revision = this.server.revision;
    this.doc = { ...this.doc, entities };
  }

  sync(): void {
    for (;;) {
      const dirty = Object.values(this.doc.entities).filter((entity) => this.acknowledged.get(entity.id) !== entity);
      if (dirty.length === 0) break;
      if (!this.server.save(this.revision, dirty)) {
        this.takeIn();
        continue;
      }
      for (const entity of dirty) this.acknowledged.set(entity.id, entity);
      this.takeIn();
    }
    this.takeIn();
  }

  /** One of the things people do, chosen by number. */
  act(what: number, at: number): void {
    const element = entitiesOf(this.doc, 'element')[0]!;
    const layers = timedLayers(this.doc, element);
    const { layer } = layers[at % layers.length]!;
    const length = elementLength(this.doc, element);
    const frame = at % length;
    if (what < 5) {
      const one = Float32Array.of(at);
      const id = this.newId();
      const mark: Stroke = {
        kind: 'stroke',
        id,
        swatch: shotOf(this.doc).swatches[0]!,
        brush: { kind: 'ink', width: 4, opacity: 1, pressure: false },
        seed: 0,
        samples: { x: one, y: one, pressure: one, altitude: one, azimuth: one },
      };
      this.doc = addMark(this.doc, layer.id, frame, mark, this.newId);
      this.drawn.push(id);
    } else if (what === 5) this.doc = newDrawing(this.doc, layer.id, frame, this.newId).doc;
    else if (what === 6) this.doc = holdFor(this.doc, layer.id, frame, 1 + (at % 4)).doc;
    else if (what === 7) this.doc = addLayer(this.doc, element.id, `L${at}`, 'line', layer.id, this.newId).doc;
    else if (what === 8) this.doc = setLayer(this.doc, layer.id, { opacity: (at % 10) / 10 });
    else this.doc = addSwatch(this.doc, { name: `s${at}`, role: 'body', colour: '#123456' }, this.newId).doc;
  }
}

const actions = fc.array(
  fc.tuple(fc.integer({ min: 0, max: 1 }), fc.integer({ min: 0, max: 10 }), fc.nat({ max: 40 })),
  { minLength: 1, maxLength: 40 },
);

test('two people drawing and saving in any order end with the same shot, with every stroke in it once and shown', () => {
  fc.assert(
    fc.property(actions, (list) => {
      const newId = seededIds(99);
      const start = newShotDocument(
        newId(),
        { name: 'T', width: 640, height: 360, rate: 24, length: 24, background: null },
        newId,
      );
      const server = new Server(start);
      const people = [new Person(start, server, newId), new Person(start, server, newId)];
      for (const [who, what, at] of list) {
        // 10 is saving; everything else is work that has not been sent yet.
        if (what === 10) people[who]!.sync();
        else people[who]!.act(what, at);
      }
      for (const person of [...people, ...people]) person.sync();
      const [one, two] = people.map((person) => person.doc);
      expect(same(one!.entities, two!.entities)).toBe(true);
      const drawings = Object.values(one!.entities).filter((e): e is Drawing => e.kind === 'drawing');
      const strokes = drawings.flatMap((drawing) => drawing.order);
      expect([...strokes].sort()).toEqual(people.flatMap((person) => person.drawn).sort());
      const element = Object.values(one!.entities).find((e): e is Element => e.kind === 'element')!;
      expect(new Set(element.layers).size).toBe(
        Object.values(one!.entities).filter((e): e is Layer => e.kind === 'layer').length,
      );
      const length = elementLength(one!, element);
      const shown = new Set(
        timedLayers(one!, element).flatMap((timed) =>
          Array.from({ length }, (_, f) => shownOn(timed, f, length)?.drawingId),
        ),
      );
      for (const drawing of drawings) expect(shown.has(drawing.id)).toBe(true);
    }),
    { numRuns: 300 },
  );
});
