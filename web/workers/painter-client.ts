/** The page's one painter, kept in step with the open document. */
import type { Drawing, Entity, Id } from '@tallow/core/document';
import { wrap, type Remote } from 'comlink';
import { onChange, useDocument } from '../shot/document.ts';
import type { Updated } from './paint.ts';
import type { Painter } from './painter.ts';

let remote: Remote<Painter> | null = null;

/** Whether a drawing is an earlier one with marks added on top and nothing else changed. */
function hasGrown(before: Entity | undefined, next: Drawing): boolean {
  return (
    before?.kind === 'drawing' &&
    before.order.length < next.order.length &&
    before.order.every((id, i) => id === next.order[i] && before.marks[id] === next.marks[id])
  );
}

/** The painter, started on first use. Calls are answered in order, after every change made before them. */
export function painter(): Remote<Painter> {
  if (remote) return remote;
  const started = wrap<Painter>(new Worker(new URL('./painter.ts', import.meta.url), { type: 'module' }));
  remote = started;
  const sent = new Map<Id, Entity>();
  const post = (ids: readonly Id[]) => {
    const entities = useDocument.getState().doc?.entities ?? {};
    const updates = ids.map((id): Updated => {
      const entity = entities[id] ?? null;
      const grew = entity?.kind === 'drawing' && hasGrown(sent.get(id), entity);
      if (entity) sent.set(id, entity);
      else sent.delete(id);
      return { id, entity, grew };
    });
    void started.update(updates);
  };
  let shown: Id | null = null;
  onChange((ids) => {
    const { doc } = useDocument.getState();
    if (doc && doc.shotId !== shown) {
      shown = doc.shotId;
      void started.clear();
      post(Object.keys(doc.entities));
    } else {
      post(ids);
    }
  });
  const { doc } = useDocument.getState();
  if (doc) {
    shown = doc.shotId;
    post(Object.keys(doc.entities));
  }
  return started;
}
