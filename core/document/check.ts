/**
 * What the body of an entity must be, and its way into and out of JSON. Browser, server and demo
 * all read bodies here, so nothing enters a document that these rules do not allow.
 */
import { z } from 'zod';
import { decodeColumn, encodeColumn } from './columns.ts';
import { EFFECTS, GUIDE_FORMS, MOODS, MOVES, STAND_IN_FORMS } from './plan-types.ts';
import { PLATE_FRAMES } from './plate-types.ts';
import { textProblem } from './text.ts';
import {
  BLENDS,
  BRUSH_KINDS,
  ELEMENT_FORMS,
  LAYER_ROLES,
  LAYER_TAGS,
  LAYS,
  SHAPE_RULES,
  SWATCH_ROLES,
  type Entity,
  type EntityKind,
  type Id,
  type Mark,
} from './types.ts';

// The page's policy forbids code made from text, which the library would otherwise try.
z.config({ jitless: true });

export const SHOT_LIMITS = {
  size: { least: 16, most: 8192 },
  rate: { least: 1, most: 120 },
  length: { least: 1, most: 10_000 },
} as const;
/** Samples in one drawing. */
export const SAMPLE_LIMIT = 1_000_000;
const FAR = 1_000_000;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
/** Whether a value is an id: a UUID in lower case. */
export const isId = (value: unknown): value is Id => typeof value === 'string' && UUID.test(value);

const SHA256 = /^[0-9a-f]{64}$/;
/** Whether a value names an asset: a SHA-256 in lower-case hex. */
export const isAsset = (value: unknown): value is string => typeof value === 'string' && SHA256.test(value);
const asset = z.custom<string>(isAsset, 'must be a SHA-256 in lower-case hex');

const id = z.custom<Id>(isId, 'must be a UUID in lower case');
const name = z.custom<string>((value) => textProblem(value, 'name') === null, {
  error: (issue) => textProblem(issue.input, 'The name') ?? 'is no name',
});
const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'must be a colour such as #e4551b, in lower case');
const within = (range: { least: number; most: number }, unit: string) =>
  z
    .int(`must be a whole number of ${unit}`)
    .min(range.least, `must be at least ${range.least} ${unit}`)
    .max(range.most, `must be at most ${range.most} ${unit}`);
const frames = (least: number) => within({ least, most: 100_000 }, 'frames');
const place = z.number().min(-FAR).max(FAR);
const share = z.number().min(0, 'must be from 0 to 1').max(1, 'must be from 0 to 1');
const uniqueIds = z
  .array(id)
  .max(20_000)
  .refine((ids) => new Set(ids).size === ids.length, 'must not name an id twice');

const column = z.string().transform((text, context) => {
  const decoded = decodeColumn(text);
  if (decoded) return decoded;
  context.addIssue({ code: 'custom', message: 'must be base64 of finite little-endian 32-bit floats' });
  return z.NEVER;
});
const samples = z
  .strictObject({ x: column, y: column, pressure: column, altitude: column, azimuth: column })
  .refine((s) => s.x.length > 0, 'must hold at least one sample')
  .refine(
    (s) => [s.y, s.pressure, s.altitude, s.azimuth].every((c) => c.length === s.x.length),
    'must have columns of equal length',
  )
  .refine((s) => [s.x, s.y].every((c) => c.every((v) => Math.abs(v) <= FAR)), `must lie within ${FAR} px`)
  .refine((s) => s.pressure.every((v) => v >= 0 && v <= 1), 'must have pressures from 0 to 1');
const brush = z.strictObject({
  kind: z.enum(BRUSH_KINDS),
  width: z.number().min(0.1).max(2000),
  opacity: share,
  pressure: z.boolean(),
  flow: z.number().min(0.01).max(1).optional(),
  taper: z.tuple([z.number().min(0).max(10_000), z.number().min(0).max(10_000)]).optional(),
  tilt: share.optional(),
});
const lays = z.enum(LAYS).optional();
const ring = column
  .refine((r) => r.length >= 12 && r.length % 6 === 0, 'must hold six numbers per node, of two nodes at least')
  .refine((r) => r.every((v) => Math.abs(v) <= FAR), `must lie within ${FAR} px`);
const seed = z.int().min(0).max(0xffffffff);
const mark = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('stroke'), id, swatch: id, brush, seed, samples, lays }),
  z.strictObject({ kind: z.literal('rub'), id, brush, seed, samples }),
  z.strictObject({
    kind: z.literal('shape'),
    id,
    swatch: id,
    rings: z.array(ring).min(1).max(5000),
    // Bodies from before shapes had a rule and an opacity are read as what they were.
    rule: z.enum(SHAPE_RULES).default('evenodd'),
    opacity: share.default(1),
    lays,
  }),
]);

const drawing = z
  .strictObject({ kind: z.literal('drawing'), id, marks: z.record(id, mark), order: uniqueIds })
  .refine((d) => d.order.length === Object.keys(d.marks).length && d.order.every((m) => m in d.marks), {
    path: ['order'],
    message: 'must name every mark once',
  })
  .refine((d) => Object.entries(d.marks).every(([key, m]) => key === m.id), {
    path: ['marks'],
    message: 'must keep each mark under its own id',
  })
  .refine(
    (d) =>
      Object.values(d.marks).reduce((n, m) => n + (m.kind === 'shape' ? 0 : m.samples.x.length), 0) <= SAMPLE_LIMIT,
    {
      path: ['marks'],
      message: `must hold at most ${SAMPLE_LIMIT} samples together`,
    },
  );

const run = z.strictObject({ id, slot: id.nullable(), length: frames(1) });

const spot = z.strictObject({ x: place, y: place });
const size = z.number().min(1).max(8192);
const eachOnce = (list: readonly { id: Id }[]) => new Set(list.map((each) => each.id)).size === list.length;
const notTwice = 'must not name an id twice';
const base = z.strictObject({
  id,
  name,
  x: place,
  y: place,
  notes: z
    .array(z.strictObject({ id, move: z.enum(MOVES), from: frames(0), length: frames(1) }))
    .max(200)
    .refine(eachOnce, notTwice),
});
const standIn = z.strictObject({
  form: z.enum(STAND_IN_FORMS),
  shape: ring.nullable(),
  sizeStart: size,
  sizeEnd: size,
  aspect: z.number().min(0.05).max(1),
  turn: z.enum(['along', 'fixed']),
  angle: z.number().min(-100).max(100),
  stretch: share,
  opacityStart: share,
  opacityEnd: share,
});
const plain = z.string().regex(/^[a-z][a-zA-Z0-9]{0,31}$/, 'must be a short plain name');
const laid = z.strictObject({ drawingId: id, slot: id, print: z.string().max(64) });

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
    bases: z.array(base).max(200).refine(eachOnce, notTwice).default([]),
    phases: z
      .array(z.strictObject({ id, name, length: frames(1), hold: within({ least: 1, most: 100 }, 'frames') }))
      .max(200)
      .refine(eachOnce, notTwice)
      .default([]),
    mood: z.enum(MOODS).nullable().default(null),
    paths: uniqueIds.default([]),
  }),
  folder: z.strictObject({
    kind: z.literal('folder'),
    id,
    elementId: id,
    name,
    visible: z.boolean(),
    locked: z.boolean(),
    opacity: z.strictObject({ constant: share }),
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
    opacity: z.strictObject({ constant: share }),
    blend: z.enum(BLENDS).default('normal'),
    onion: z.boolean().default(true),
    tag: z.int().min(0).max(LAYER_TAGS).default(0),
    runListId: id,
    slots: z.record(id, id),
    starterId: id.nullable().default(null),
    inside: z.boolean().default(false),
    clip: z.boolean().default(false),
    tint: id.nullable().default(null),
  }),
  runlist: z
    .strictObject({
      kind: z.literal('runlist'),
      id,
      elementId: id,
      runs: z.array(run).max(20_000),
      period: frames(1).nullable(),
      offset: frames(-100_000),
    })
    .refine((l) => new Set(l.runs.map((r) => r.id)).size === l.runs.length, {
      path: ['runs'],
      message: 'must not name a run twice',
    }),
  drawing,
  swatch: z.strictObject({ kind: z.literal('swatch'), id, name, role: z.enum(SWATCH_ROLES), colour }),
  path: z.strictObject({
    kind: z.literal('path'),
    id,
    elementId: id,
    name,
    nodes: ring,
    closed: z.boolean(),
    from: frames(0),
    ticks: within({ least: 2, most: 1000 }, 'ticks'),
    hold: within({ least: 1, most: 100 }, 'frames'),
    softStart: share,
    softEnd: share,
    slows: z
      .array(z.strictObject({ id, at: share, width: z.number().min(0.01).max(1), amount: share }))
      .max(100)
      .refine(eachOnce, notTwice),
    perspective: z.boolean(),
    placed: z.record(z.string().regex(/^(0|[1-9][0-9]{0,3})$/, 'must be the number of a tick'), share),
    standIn,
    visible: z.boolean(),
    locked: z.boolean(),
  }),
  guide: z.strictObject({
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
  starter: z.strictObject({
    kind: z.literal('starter'),
    id,
    elementId: id,
    effect: z.enum(EFFECTS),
    seed,
    x: place,
    y: place,
    settings: z.record(plain, place),
    line: column
      .refine((l) => l.length >= 4 && l.length % 2 === 0 && l.length <= 2000, 'must hold 2 to 1000 points')
      .refine((l) => l.every((v) => Math.abs(v) <= FAR), `must lie within ${FAR} px`)
      .nullable(),
    pathId: id.nullable(),
    from: frames(0),
    length: within({ least: 1, most: 2000 }, 'frames'),
    hold: within({ least: 1, most: 100 }, 'frames').nullable(),
    layers: z.record(plain, id),
    paints: z.record(plain, id),
    laid: z.record(plain, z.array(laid).max(2000)),
  }),
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
      return [...list('layers', entity.layers), ...list('paths', entity.paths)];
    case 'folder':
      return [...list('elementId', [entity.elementId]), ...list('layers', entity.layers)];
    case 'layer':
      return [
        ...list('elementId', [entity.elementId]),
        ...list('runListId', [entity.runListId]),
        ...list('slots', Object.values(entity.slots)),
        ...(entity.starterId ? list('starterId', [entity.starterId]) : []),
        ...(entity.tint ? list('tint', [entity.tint]) : []),
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
    case 'swatch':
    case 'plate':
      return [];
  }
}
