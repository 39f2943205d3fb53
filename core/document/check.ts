/**
 * What the body of an entity must be, and its way into and out of JSON. Browser, server and demo
 * all read bodies here, so nothing enters a document that these rules do not allow.
 */
import { z } from 'zod';
import { encodeColumn } from './columns.ts';
import {
  asset,
  colour,
  eachOnce,
  FAR,
  frames,
  id,
  name,
  notTwice,
  place,
  share,
  spot,
  uniqueIds,
  within,
} from './fields.ts';
import { AT_HOME, LIGHT_ABOVE } from './create.ts';
import { drawing } from './mark-check.ts';
import { base, planned } from './plan-check.ts';
import type { Finish } from './look-types.ts';
import { MOODS } from './plan-types.ts';
import { between, runlist, shift, trace, value, variant } from './time-check.ts';
import { fill, finishes, gradient, recolour, tone } from './look-check.ts';
import { PLATE_FRAMES } from './plate-types.ts';
import {
  BLENDS,
  ELEMENT_FORMS,
  LAYER_ROLES,
  LAYER_TAGS,
  SWATCH_ROLES,
  type Entity,
  type EntityKind,
  type Id,
  type Mark,
} from './types.ts';

export { isAsset, isId } from './fields.ts';
export { SAMPLE_LIMIT } from './mark-check.ts';

export const SHOT_LIMITS = {
  size: { least: 16, most: 8192 },
  rate: { least: 1, most: 120 },
  length: { least: 1, most: 10_000 },
} as const;

const schemas = {
  shot: z.strictObject({
    kind: z.literal('shot'),
    id,
    name,
    width: within(SHOT_LIMITS.size, 'px'),
    height: within(SHOT_LIMITS.size, 'px'),
    rate: within(SHOT_LIMITS.rate, 'frames per second'),
    length: within(SHOT_LIMITS.length, 'frames'),
    background: colour.nullable(),
    planes: uniqueIds,
    elements: uniqueIds,
    swatches: uniqueIds,
    guides: uniqueIds.default([]),
    plates: uniqueIds.default([]),
  }),
  plane: z.strictObject({
    kind: z.literal('plane'),
    id,
    name,
    depth: z.number().min(-1000).max(1000),
    placements: uniqueIds,
  }),
  placement: z.strictObject({
    kind: z.literal('placement'),
    id,
    elementId: id,
    start: frames(0),
    repeats: frames(1).nullable(),
    x: place,
    y: place,
  }),
  element: z.strictObject({
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
      .array(z.strictObject({ id, name, length: frames(1), hold: within({ least: 1, most: 100 }, 'frames') }))
      .max(200)
      .refine(eachOnce, notTwice)
      .default([]),
    mood: z.enum(MOODS).nullable().default(null),
    paths: uniqueIds.default([]),
    traces: z.array(trace).max(200).refine(eachOnce, notTwice).default([]),
  }),
  folder: z.strictObject({
    kind: z.literal('folder'),
    id,
    elementId: id,
    name,
    visible: z.boolean(),
    locked: z.boolean(),
    opacity: value(share),
    layers: uniqueIds,
  }),
  layer: z.strictObject({
    kind: z.literal('layer'),
    id,
    elementId: id,
    name,
    role: z.enum(LAYER_ROLES),
    visible: z.boolean(),
    locked: z.boolean(),
    opacity: value(share),
    blend: z.enum(BLENDS).default('normal'),
    onion: z.boolean().default(true),
    tag: z.int().min(0).max(LAYER_TAGS).default(0),
    runListId: id,
    slots: z.record(id, id),
    starterId: id.nullable().default(null),
    inside: z.boolean().default(false),
    clip: z.boolean().default(false),
    tint: id.nullable().default(null),
    shift: shift.default(() => structuredClone(AT_HOME) as z.infer<typeof shift>),
    finishes: finishes.default([]),
    forWork: z.boolean().default(false),
    matte: z.strictObject({ shot: z.boolean(), inverted: z.boolean() }).default({ shot: false, inverted: false }),
  }),
  runlist,
  variant,
  between,
  fill,
  tone,
  drawing,
  swatch: z.strictObject({
    kind: z.literal('swatch'),
    id,
    name,
    role: z.enum(SWATCH_ROLES),
    colour,
    gradient: gradient.nullable().default(null),
  }),
  ...planned,
  plate: z.strictObject({
    kind: z.literal('plate'),
    id,
    name,
    assets: z.array(asset).min(1).max(PLATE_FRAMES),
    width: z.int().min(1).max(100_000),
    height: z.int().min(1).max(100_000),
    x: z.number().min(-FAR).max(FAR),
    y: z.number().min(-FAR).max(FAR),
    scale: z.number().min(0.0001).max(1000),
    angle: z.number().min(-1000).max(1000),
    opacity: share,
    guide: z.boolean(),
    beside: z.boolean(),
    visible: z.boolean(),
    locked: z.boolean(),
    span: z.strictObject({ from: frames(0), length: frames(1) }).nullable(),
  }),
} satisfies Record<EntityKind, z.ZodType>;

/** Every kind of entity there is. */
export const ENTITY_KINDS = Object.keys(schemas) as EntityKind[];

/** One thing wrong with a body: the field as a path from the body's root, and what to do about it. */
export interface Problem {
  readonly field: string;
  readonly message: string;
}

export type Read<T> = { readonly ok: T } | { readonly problems: readonly Problem[] };

/** Reads a body as it stands in JSON. Nothing of a body with a problem is taken. */
export function readEntity(body: unknown): Read<Entity> {
  const kind = (body as { kind?: unknown } | null)?.kind;
  if (typeof kind !== 'string' || !Object.hasOwn(schemas, kind)) {
    return { problems: [{ field: 'kind', message: `must be one of ${ENTITY_KINDS.join(', ')}` }] };
  }
  const result = schemas[kind as EntityKind].safeParse(body);
  if (result.success) return { ok: result.data as Entity };
  return {
    problems: result.error.issues.map((issue) => ({ field: issue.path.join('.') || 'body', message: issue.message })),
  };
}

function encodeMark(mark: Mark): unknown {
  if (mark.kind === 'shape') return { ...mark, rings: mark.rings.map(encodeColumn) };
  const { x, y, pressure, altitude, azimuth } = mark.samples;
  const columns = { x, y, pressure, altitude, azimuth };
  return {
    ...mark,
    samples: Object.fromEntries(Object.entries(columns).map(([key, value]) => [key, encodeColumn(value)])),
  };
}

/** The body of an entity as it stands in JSON. `readEntity` gives it back exactly. */
export function encodeEntity(entity: Entity): Record<string, unknown> {
  if (entity.kind === 'path') {
    const { shape } = entity.standIn;
    const drawn = { ...entity.standIn, shape: shape && encodeColumn(shape) };
    return { ...entity, nodes: encodeColumn(entity.nodes), standIn: drawn };
  }
  if (entity.kind === 'starter') return { ...entity, line: entity.line && encodeColumn(entity.line) };
  if (entity.kind !== 'drawing') return { ...entity };
  return {
    ...entity,
    marks: Object.fromEntries(Object.values(entity.marks).map((mark) => [mark.id, encodeMark(mark)])),
  };
}

/** Swatches that finishes have for their own. */
const paintedWith = (all: readonly Finish[]): Id[] => all.flatMap(({ swatch }) => swatch ?? []);

/** Ids of other entities that a body points at, with the field that does so. Slots and marks have no rows. */
export function referencesOf(entity: Entity): { field: string; id: Id }[] {
  const list = (field: string, ids: readonly Id[]) => ids.map((each) => ({ field, id: each }));
  switch (entity.kind) {
    case 'shot':
      return [
        ...list('planes', entity.planes),
        ...list('elements', entity.elements),
        ...list('swatches', entity.swatches),
        ...list('guides', entity.guides),
        ...list('plates', entity.plates),
      ];
    case 'plane':
      return list('placements', entity.placements);
    case 'placement':
      return list('elementId', [entity.elementId]);
    case 'element':
      return [
        ...list('layers', entity.layers),
        ...list('paths', entity.paths),
        ...list('finishes', paintedWith(entity.finishes)),
        ...list(
          'recolours',
          entity.recolours.flatMap(({ map }) => [...Object.keys(map), ...Object.values(map)]),
        ),
      ];
    case 'folder':
      return [...list('elementId', [entity.elementId]), ...list('layers', entity.layers)];
    case 'layer':
      return [
        ...list('elementId', [entity.elementId]),
        ...list('runListId', [entity.runListId]),
        ...list('slots', Object.values(entity.slots)),
        ...(entity.starterId ? list('starterId', [entity.starterId]) : []),
        ...(entity.tint ? list('tint', [entity.tint]) : []),
        ...list('finishes', paintedWith(entity.finishes)),
      ];
    case 'runlist':
    case 'path':
      return list('elementId', [entity.elementId]);
    case 'guide':
      return entity.elementId ? list('elementId', [entity.elementId]) : [];
    // A starter outlives layers, drawings, swatches and paths it once laid or followed: they are looked up, and may be gone.
    case 'starter':
      return list('elementId', [entity.elementId]);
    case 'drawing':
      return Object.values(entity.marks).flatMap((m) =>
        m.kind === 'rub' ? [] : list(`marks.${m.id}.swatch`, [m.swatch]),
      );
    // Layers and drawings of a kept variant, and what in-betweens, fills and tone hang on, may be gone: they are looked up.
    case 'variant':
    case 'between':
    case 'fill':
    case 'tone':
      return list('elementId', [entity.elementId]);
    case 'swatch':
      return list('gradient', entity.gradient?.stops.map((stop) => stop.swatch) ?? []);
    case 'plate':
      return [];
  }
}
