/** An element: one piece of effects animation with its own time, its plan and its layers. */
import { z } from 'zod';
import { eachOnce, frames, id, name, notTwice, place, spot, uniqueIds, within } from '../fields.ts';
import { type Id } from '../id.ts';
import { finishes, recolour, lookIds, lookValues } from '../look-check.ts';
import { type AppliedLook, type Recolour } from '../look-types.ts';
import { base } from '../plan-check.ts';
import { MOODS, type Mood, type Phase, type Base } from '../plan-types.ts';
import { value } from '../value-check.ts';
import { type Value } from '../value.ts';
import { smearings, type Smearing } from './smear.ts';
import { kindOf, each, list, entries, withFields, type Pointer } from './kind.ts';

/** One point followed from drawing to drawing. */
export interface Trace {
  readonly id: Id;
  readonly layerId: Id;
  /** Where it is on each slot's drawing, element space; with `aim` where it is to be when that is drawn anew. */
  readonly points: Readonly<Record<Id, { readonly x: number; readonly y: number; readonly aim: boolean }>>;
}

export type ElementTime = 'open' | 'cycle' | 'one-shot';

/** How an element's time is seen: as a disc, unrolled into a straight band, as a sheet, or whichever suits its length. */
const ELEMENT_FORMS = ['auto', 'disc', 'straight', 'sheet'] as const;

export type ElementForm = (typeof ELEMENT_FORMS)[number];

export interface Element {
  readonly kind: 'element';
  readonly id: Id;
  readonly name: string;
  /** Open while it grows; then a cycle (wraps) or a one-shot (ends). */
  readonly time: ElementTime;
  readonly form: ElementForm;
  /** Where the effect grows from, in element space. Moving it moves no mark. */
  readonly anchor: { readonly x: number; readonly y: number };
  /** Where the effect leads to: its axis goes there from the anchor. Null for straight up, half the picture's height. */
  readonly tip: { readonly x: number; readonly y: number } | null;
  /** Where light comes from, degrees clockwise from the right, over time. */
  readonly light: Value;
  /** Looks of the element as a whole. */
  readonly finishes: readonly AppliedLook[];
  readonly recolours: readonly Recolour[];
  /** The recolouring it is seen in, or null for its own swatches. */
  readonly recolour: Id | null;
  readonly bases: readonly Base[];
  readonly phases: readonly Phase[];
  readonly mood: Mood | null;
  readonly paths: readonly Id[];
  /** Points followed from drawing to drawing. */
  readonly traces: readonly Trace[];
  /** How its pieces are smeared, by their names; all of it under ''. */
  readonly smearings: Readonly<Record<string, Smearing>>;
  /** Slots whose drawing leaves the one before far behind, and is meant to. */
  readonly meant: readonly Id[];
  /** The effect of the shelf it was taken from, and its revision then; null for what was made here. */
  readonly shelf: { readonly shelfId: Id; readonly revision: number } | null;
  /** Ids of layers and folders, topmost first. */
  readonly layers: readonly Id[];
}

/** Light from above, a little from the left: degrees clockwise from the right. */
export const LIGHT_ABOVE = 240;

const trace = () =>
  z.strictObject({
    id,
    layerId: id,
    points: z.record(id, z.strictObject({ x: place, y: place, aim: z.boolean() })),
  });
const LAYERS: Pointer = { field: 'layers', to: 'layer', bond: 'lists' };
const PATHS: Pointer = { field: 'paths', to: 'path', bond: 'lists' };
const TRACES: Pointer = { field: 'traces', to: 'layer', bond: 'entry' };
const RECOLOURS: Pointer = { field: 'recolours', to: 'swatch', bond: 'needs', use: 'recolouring' };

export const element = kindOf<Element>({
  kind: 'element',
  version: 1,
  schema: () =>
    z.strictObject({
      kind: z.literal('element'),
      id,
      name,
      time: z.enum(['open', 'cycle', 'one-shot']),
      form: z.enum(ELEMENT_FORMS).default('auto'),
      layers: uniqueIds,
      anchor: spot.default({ x: 0, y: 0 }),
      tip: spot.nullable().default(null),
      light: value(z.number().min(-36_000).max(36_000)).default({ constant: LIGHT_ABOVE }),
      finishes: finishes.default([]),
      recolours: z.array(recolour).max(100).refine(eachOnce, notTwice).default([]),
      recolour: id.nullable().default(null),
      bases: z.array(base).max(200).refine(eachOnce, notTwice).default([]),
      phases: z
        .array(z.strictObject({ id, name, length: frames(1), hold: within({ min: 1, max: 100 }, 'frames') }))
        .max(200)
        .refine(eachOnce, notTwice)
        .default([]),
      mood: z.enum(MOODS).nullable().default(null),
      paths: uniqueIds.default([]),
      traces: z.array(trace()).max(200).refine(eachOnce, notTwice).default([]),
      smearings: smearings.default({}),
      meant: uniqueIds.default([]),
      shelf: z
        .strictObject({ shelfId: id, revision: z.int().min(1) })
        .nullable()
        .default(null),
    }),
  merge: {
    anchor: 'value',
    tip: 'value',
    light: 'value',
    finishes: 'things',
    recolours: 'things',
    bases: 'things',
    phases: 'things',
    paths: 'order',
    traces: 'things',
    smearings: 'record',
    meant: 'order',
    shelf: 'value',
    layers: 'order',
  },
  points: ['layer', 'path', 'swatch'],
  mapIds: (element, of) =>
    withFields(element, {
      // Layers and folders.
      layers: list(element.layers, of, LAYERS),
      paths: list(element.paths, of, PATHS),
      finishes: lookIds(element.finishes, of),
      recolours: each(element.recolours, (recolour) =>
        withFields(recolour, {
          map: entries(recolour.map, (from, to) => {
            const [a, b] = [of(from, RECOLOURS), of(to, RECOLOURS)];
            return a === null || b === null ? null : [a, b];
          }),
        }),
      ),
      traces: each(element.traces, (trace) => {
        const layerId = of(trace.layerId, TRACES);
        return layerId === null ? null : withFields(trace, { layerId });
      }),
    }),
  mapValues: (element, change) => ({
    ...element,
    light: change(element.light),
    finishes: lookValues(element.finishes, change),
  }),
});
