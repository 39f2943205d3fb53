/** Undo steps: the touched entities before and after, put back by identity or merged by id. */
import { mergeEntity } from './merge.ts';
import type { Id } from './id.ts';
import type { Entity } from './kinds/index.ts';
import type { ShotDocument } from './types.ts';

/** What one entity was before and after an edit; undefined where it did not exist. */
interface Touch {
  readonly before: Entity | undefined;
  readonly after: Entity | undefined;
}

export interface Step {
  /** What the user did, as in "Undo new drawing". */
  readonly name: string;
  readonly touched: Readonly<Record<Id, Touch>>;
}

/** The entities that differ between two documents. Cheap: unchanged entities are the same object. */
export function touchedBetween(before: ShotDocument, after: ShotDocument): Record<Id, Touch> {
  const touched: Record<Id, Touch> = {};
  if (before.entities === after.entities) return touched;
  for (const id in after.entities) {
    if (before.entities[id] !== after.entities[id])
      touched[id] = { before: before.entities[id], after: after.entities[id] };
  }
  for (const id in before.entities) {
    if (!(id in after.entities)) touched[id] = { before: before.entities[id], after: undefined };
  }
  return touched;
}

/** Joins a step with the one right after it, so that a drag is one step. */
export function joinSteps(first: Step, second: Step): Step {
  const touched: Record<Id, Touch> = { ...first.touched };
  for (const [id, touch] of Object.entries(second.touched)) {
    touched[id] = { before: id in touched ? touched[id]!.before : touch.before, after: touch.after };
  }
  return { name: first.name, touched };
}

/** The same step the other way. */
export function reversed(step: Step): Step {
  const touched = Object.entries(step.touched).map(([id, t]) => [id, { before: t.after, after: t.before }] as const);
  return { name: step.name, touched: Object.fromEntries(touched) };
}

/**
 * Applies a step (for undo, a reversed one). Where somebody else has changed an entity since, the
 * step is merged into it by id; where that cannot be done without taking their work away, nothing
 * changes and null is returned.
 */
export function applyStep(doc: ShotDocument, step: Step): ShotDocument | null {
  const entities: Record<Id, Entity> = { ...doc.entities };
  for (const [id, { before, after }] of Object.entries(step.touched)) {
    const current = doc.entities[id];
    if (current === before) {
      if (after) entities[id] = after;
      else Reflect.deleteProperty(entities, id);
    } else if (before && after && current) {
      const { merged, clashes } = mergeEntity(before, after, current);
      if (clashes.length > 0) return null;
      entities[id] = merged;
    } else if (current || after) {
      return null;
    }
  }
  return { ...doc, entities };
}
