/**
 * What a painter draws with: the document as it knows it, rasters, what looks came to, pictures of plates. Drawings are asked
 * of the page when they are needed and given up when many are here, so that neither grows with the shot.
 */
import type { DrawingFacts } from '@tallow/core/checks';
import { bytesOfMarks, unpackedMarks, type Drawing, type Id, type ShotDocument } from '@tallow/core/document';
import {
  drawDrawing,
  KeptParts,
  keptRendering,
  nearly,
  paintsOf,
  Rasters,
  SurfacePool,
  type RenderContext,
  type Surface,
} from '@tallow/core/render';
import { Assets } from './assets.ts';
import type { Updated } from './paint.ts';
import { makeSurface } from './surfaces.ts';

const MB = 1024 * 1024;
/** Bytes each painter keeps at most: rasters of drawings, what looks came to, surfaces that lie ready, drawings. */
const BOUNDS = { rasters: 112 * MB, parts: 56 * MB, pool: 32 * MB, drawings: 48 * MB } as const;

export class Board {
  doc: ShotDocument = { shotId: '', entities: {} };
  /** Grows with every change of the document, not when drawings come and go. */
  changes = 0;
  readonly pool = new SurfacePool(makeSurface, BOUNDS.pool);
  readonly rasters: Rasters;
  readonly assets = new Assets();
  /** What looks came to, by everything they were worked out from. */
  private readonly parts = new KeptParts(this.pool, BOUNDS.parts);
  readonly rendering: RenderContext;
  /** The same while something moves: coarser. */
  readonly roughly: RenderContext;
  /** The same while something is moved and the shot plays: every frame is new, and softer ones are there in time. */
  readonly moving: RenderContext;
  /** What is known of drawings for the search for accidents. */
  readonly facts = new Map<Id, DrawingFacts>();
  /** Drawings that are here, those used last at the end. */
  private readonly here = new Map<Id, number>();
  private hereBytes = 0;
  private readonly waiting = new Map<Id, (() => void)[]>();
  /** Drawings whose marks are being read from where the browser keeps them. */
  private readonly reading = new Map<Id, Blob>();

  /**
   * @param ask asks the page for drawings, which it sends as updates. @param low when nothing else is to do.
   * @param between called before each mark that is drawn, with what has been drawn so far, and before marks are unpacked.
   */
  constructor(
    private readonly ask: (ids: readonly Id[], low: boolean) => void,
    private readonly between: (on?: Surface) => void,
  ) {
    this.rasters = new Rasters(this.pool, BOUNDS.rasters, makeSurface, between);
    const kept = keptRendering(() => this.doc, this.pool, this.rasters, this.parts);
    this.rendering = { ...kept, assets: this.assets.picture };
    this.roughly = { ...this.rendering, rough: true };
    this.moving = { ...this.roughly, near: true, pictureOf: nearly(kept.pictureOf) };
  }

  /** For pictures that are kept by who shows them, or of drawings that are not in the document: nothing is kept here. */
  readonly passing: RenderContext = {
    assets: this.assets.picture,
    make: this.pool.make,
    rough: true,
    pictureOf: (item, matrix, width, height) => {
      const on = this.pool.make(width, height);
      drawDrawing(on, this.rasters.scratch, item.drawing, paintsOf(this.doc, item), matrix, this.between);
      return { picture: on.picture, left: 0, top: 0 };
    },
  };

  /** The same for the layer the pen is on. */
  underPen(by: RenderContext): RenderContext {
    return {
      ...by,
      pictureOf: (item, matrix, width, height) => this.rasters.drawing(this.doc, item, { width, height, matrix }, true),
    };
  }

  /** Takes entities that changed, and drawings that were asked for. */
  update(changed: readonly Updated[]): void {
    const entities = { ...this.doc.entities };
    let recoloured = false;
    for (const { id, entity, grew, asked } of changed) {
      const before = entities[id];
      this.reading.delete(id);
      recoloured ||= before?.kind === 'swatch' || before?.kind === 'element';
      if (!asked) {
        this.changes += 1;
        this.facts.delete(id);
        if (entity === 'later' || entity?.kind === 'drawing' || before?.kind === 'drawing')
          this.rasters.changed(id, grew);
      }
      if (entity === null || entity === 'later') {
        this.leave(id);
        Reflect.deleteProperty(entities, id);
      } else {
        entities[id] = entity;
        recoloured ||= entity.kind === 'swatch' || entity.kind === 'element';
        if (entity.kind === 'drawing') this.arrive(entity);
        if (entity.kind === 'shot') this.doc = { ...this.doc, shotId: id };
      }
      for (const done of this.waiting.get(id) ?? []) done();
      this.waiting.delete(id);
    }
    for (const id of this.tooMany()) Reflect.deleteProperty(entities, id);
    this.doc = { ...this.doc, entities };
    if (recoloured) this.rasters.recoloured(this.doc);
  }

  /**
   * Takes a drawing that was asked for and lies aside: its marks are read here, so that the page neither waits nor copies.
   * What came for it meanwhile counts.
   * @returns whether the browser still had them.
   */
  async take(aside: Omit<Drawing, 'marks'>, blob: Blob): Promise<boolean> {
    this.reading.set(aside.id, blob);
    let marks: Drawing['marks'];
    try {
      const packed = await blob.arrayBuffer();
      this.between();
      marks = unpackedMarks(packed);
    } catch {
      return false;
    }
    if (this.reading.get(aside.id) === blob)
      this.update([{ id: aside.id, entity: { ...aside, marks }, grew: false, asked: true }]);
    return true;
  }

  /** Forgets the document before another one is opened. */
  clear(): void {
    this.reading.clear();
    this.doc = { shotId: '', entities: {} };
    this.changes += 1;
    this.rasters.clear();
    this.parts.clear();
    this.here.clear();
    this.facts.clear();
    this.hereBytes = 0;
    for (const list of this.waiting.values()) for (const done of list) done();
    this.waiting.clear();
  }

  /** Sees to it that drawings are here. What the page does not have yet is left out. @param low see above. */
  async ready(ids: readonly Id[], low = false): Promise<void> {
    for (const id of ids) this.use(id);
    const absent = [...new Set(ids)].filter((id) => !this.doc.entities[id]);
    if (absent.length === 0) return;
    const arrivals = absent.map(
      (id) =>
        new Promise<void>((done) => {
          this.waiting.set(id, [...(this.waiting.get(id) ?? []), done]);
        }),
    );
    this.ask(absent, low);
    await Promise.all(arrivals);
  }

  private arrive(drawing: Drawing): void {
    this.leave(drawing.id);
    const bytes = bytesOfMarks(drawing.marks);
    this.here.set(drawing.id, bytes);
    this.hereBytes += bytes;
  }

  private leave(id: Id): void {
    this.hereBytes -= this.here.get(id) ?? 0;
    this.here.delete(id);
  }

  private use(id: Id): void {
    const bytes = this.here.get(id);
    if (bytes === undefined) return;
    this.here.delete(id);
    this.here.set(id, bytes);
  }

  /** Those unused longest, as far as there are too many; what came last stays. */
  private tooMany(): Id[] {
    const given: Id[] = [];
    for (const [id] of this.here) {
      if (this.hereBytes <= BOUNDS.drawings || this.here.size <= 32) break;
      this.leave(id);
      given.push(id);
    }
    return given;
  }
}
