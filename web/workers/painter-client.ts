/**
 * The page's painters, kept in step with the open document: one for the picture that is drawn on, one for everything that
 * can wait for it. Drawings are sent when a painter asks for them; what it has is sent again when it changes.
 */
import type { Drawing, Entity, Id } from '@tallow/core/document';
import { wrap, type Remote } from 'comlink';
import { whenIdle } from './idle.ts';
import { asides } from '../shot/aside.ts';
import { onChange, useDocument } from '../shot/document.ts';
import { makeGate } from './gate.ts';
import type { Updated, Wanted } from './paint.ts';
import type { Painter } from './painter.ts';

/** Whether a drawing is an earlier one with marks added on top and nothing else changed. */
function hasGrown(before: Entity | undefined, next: Drawing): boolean {
  return (
    before?.kind === 'drawing' &&
    before.order.length < next.order.length &&
    before.order.every((id, i) => id === next.order[i] && before.marks[id] === next.marks[id])
  );
}

/** Whether it is a drawing whose marks are not at hand. */
const isAside = (entity: Entity | undefined): entity is Drawing => entity?.kind === 'drawing' && asides.isAside(entity);

const entitiesNow = (): Readonly<Record<Id, Entity>> => useDocument.getState().doc?.entities ?? {};

class PainterLink {
  readonly remote: Remote<Painter>;
  /** Drawings it was sent, as it was sent them. */
  private readonly sent = new Map<Id, Drawing>();
  private shown: Id | null = null;

  /** @param eager whether changed drawings that it has are sent at once, as the next picture needs them. */
  constructor(private readonly eager: boolean) {
    const worker = new Worker(new URL('./painter.ts', import.meta.url), { type: 'module' });
    this.remote = wrap<Painter>(worker);
    if (!eager) void this.remote.waitAt(gate);
    worker.addEventListener('message', ({ data }: MessageEvent<Partial<Wanted>>) => {
      if (data.wanted) void this.give(data.wanted, data.low ?? false);
    });
    onChange((ids) => {
      this.tell(ids);
    });
    this.tell([]);
  }

  private tell(ids: readonly Id[]): void {
    const { doc } = useDocument.getState();
    if (!doc) return;
    if (doc.shotId === this.shown) {
      this.post(ids.map((id) => this.changed(id)));
      return;
    }
    this.shown = doc.shotId;
    this.sent.clear();
    void this.remote.clear();
    this.post(
      Object.keys(doc.entities).flatMap((id) => (doc.entities[id]!.kind === 'drawing' ? [] : [this.changed(id)])),
    );
  }

  private changed(id: Id): Updated {
    const entity = entitiesNow()[id] ?? null;
    const before = this.sent.get(id);
    if (entity?.kind !== 'drawing') {
      this.sent.delete(id);
      return { id, entity, grew: false };
    }
    const grew = hasGrown(before, entity);
    if (!before || !this.eager) {
      this.sent.delete(id);
      return { id, entity: 'later', grew };
    }
    this.sent.set(id, entity);
    return { id, entity, grew };
  }

  /** Sends drawings that were asked for: at once those of a picture that is waited for, others where there is time. */
  private async give(ids: readonly Id[], low: boolean): Promise<void> {
    const { shown } = this;
    if (!low) {
      const aside = ids.filter((id) => isAside(entitiesNow()[id]));
      this.post(ids.filter((id) => !aside.includes(id)).map((id) => this.asked(id)));
      await Promise.all(aside.map((id) => this.giveAside(id, shown)));
      return;
    }
    for (const id of ids) {
      await whenIdle();
      if (this.shown !== shown) return;
      await this.giveAside(id, shown);
    }
  }

  /** Sends a drawing that may lie aside: then the painter reads its marks itself, and it goes on lying there. */
  private async giveAside(id: Id, shown: Id | null): Promise<void> {
    const entity = entitiesNow()[id];
    const blob = isAside(entity) ? asides.blobOf(entity) : undefined;
    if (!isAside(entity) || !blob) {
      this.post([this.asked(id)]);
      return;
    }
    this.sent.set(id, entity);
    const { kind, order } = entity;
    if ((await this.remote.take({ kind, id, order }, blob)) || this.shown !== shown) return;
    // The browser has lost it: it comes from elsewhere. What it has become meanwhile is at hand.
    const marks = await asides.marksOf(entity);
    if (this.shown !== shown) return;
    this.post([this.asked(id, entitiesNow()[id] === entity ? { kind, id, order, marks } : undefined)]);
  }

  private asked(id: Id, copy?: Drawing): Updated {
    const entity = entitiesNow()[id];
    if (entity?.kind === 'drawing') this.sent.set(id, entity);
    return { id, entity: copy ?? entity ?? 'later', grew: false, asked: true };
  }

  private post(updates: readonly Updated[]): void {
    if (updates.length > 0) void this.remote.update(updates);
  }
}

/** Closed while the picture that is drawn on needs the machine: the other painters wait at it, in the middle of a drawing even. */
export const gate = makeGate();

const links: (PainterLink | undefined)[] = [];
/** Painters are started when they are first asked for. */
function linkOf(nth: number): Remote<Painter> {
  links[nth] ??= new PainterLink(nth === 0);
  return links[nth].remote;
}

/** The painter of the picture that is drawn on. Calls are answered in order, after every change made before them. */
export const painter = (): Remote<Painter> => linkOf(0);

/** The painter of what can wait: small pictures, measures. */
export const besidePainter = (): Remote<Painter> => linkOf(1);

/** The painters of frames ahead. @param lane 0 or 1. */
export const framePainter = (lane: number): Remote<Painter> => linkOf(1 + lane);
