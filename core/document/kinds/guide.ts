/** A line to draw by: of one element, or of the whole shot. */
import { z } from 'zod';
import { frames, id, name, place } from '../fields.ts';
import { type Id } from '../id.ts';
import { kindOf, OF_ELEMENT, maybe, withFields } from './kind.ts';

const GUIDE_FORMS = ['level', 'plumb', 'line', 'grid'] as const;

export type GuideForm = (typeof GUIDE_FORMS)[number];

/** A line to draw by: of one element, or of the whole shot. Never part of the picture. */
export interface Guide {
  readonly kind: 'guide';
  readonly id: Id;
  /** Whose it is; null for the whole shot. Its points are in that element's space, or in shot px. */
  readonly elementId: Id | null;
  readonly name: string;
  readonly form: GuideForm;
  /** A point it runs through; of a grid, its vanishing point. */
  readonly x: number;
  readonly y: number;
  /** Another point of a line; of a grid, the near corner of its first square. */
  readonly toX: number;
  readonly toY: number;
  readonly visible: boolean;
  readonly locked: boolean;
  /** Frames on which it is seen, of the element or the shot: from, and how many; null is throughout. */
  readonly span: { readonly from: number; readonly length: number } | null;
}

export const guide = kindOf<Guide>({
  kind: 'guide',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('guide'),
      id,
      elementId: id.nullable(),
      name,
      form: z.enum(GUIDE_FORMS),
      x: place,
      y: place,
      toX: place,
      toY: place,
      visible: z.boolean(),
      locked: z.boolean(),
      span: z.strictObject({ from: frames(0), length: frames(1) }).nullable(),
    }),
  merge: { span: 'value' },
  points: ['element'],
  mapIds: (guide, of) => withFields(guide, { elementId: maybe(guide.elementId, of, OF_ELEMENT) }),
});
