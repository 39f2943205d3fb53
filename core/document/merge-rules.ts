/**
 * How each field of each kind of entity is put together when two sides changed it. Numbers, texts and yes or no
 * are not listed: whoever changed one has it. All other fields are, and the compiler names one that was forgotten.
 */
import type { EntityKind, EntityOf } from './types.ts';

/**
 * - `order`: ids, what either put in or took out.
 * - `things`: a list of things with ids, each by its id.
 * - `record`: key by key; keys come and go.
 * - `fields`: the same where the keys are always the same.
 * - `records`: records in a record, key by key in both.
 * - `value`: as one, it makes no sense in parts.
 */
export type MergeRule = 'order' | 'things' | 'record' | 'fields' | 'records' | 'value';

type RuleFor<T> = [T] extends [Float32Array]
  ? never
  : [T] extends [readonly string[]]
    ? 'order' | 'value'
    : [T] extends [readonly { readonly id: string }[]]
      ? 'things' | 'value'
      : [T] extends [readonly unknown[]]
        ? 'value'
        : [T] extends [object]
          ? 'record' | 'fields' | 'records' | 'value'
          : never;

type RulesOf<E> = {
  readonly [F in keyof E as RuleFor<NonNullable<E[F]>> extends never ? never : F]: RuleFor<NonNullable<E[F]>>;
};

export const MERGE_RULES: { readonly [K in EntityKind]: RulesOf<EntityOf<K>> } = {
  shot: { planes: 'order', elements: 'order', swatches: 'order', guides: 'order', plates: 'order' },
  plane: { placements: 'order' },
  placement: {},
  element: {
    anchor: 'value',
    tip: 'value',
    light: 'value',
    finishes: 'things',
    recolours: 'things',
    bases: 'things',
    phases: 'things',
    paths: 'order',
    traces: 'things',
    layers: 'order',
  },
  folder: { opacity: 'value', layers: 'order' },
  layer: { opacity: 'value', slots: 'record', shift: 'fields', finishes: 'things', matte: 'fields' },
  runlist: { runs: 'things', poses: 'record', numbers: 'record' },
  drawing: { marks: 'record', order: 'order' },
  swatch: { gradient: 'value' },
  path: { slows: 'things', placed: 'record', standIn: 'fields' },
  guide: { span: 'value' },
  starter: { settings: 'fields', layers: 'record', paints: 'record', laid: 'record' },
  plate: { assets: 'value', span: 'value' },
  variant: { scope: 'order', held: 'value' },
  // The slots of in-betweens, where they lie and what they were laid from belong together.
  between: { slots: 'value', shares: 'value', ties: 'value', laid: 'value', hangsOn: 'value' },
  fill: { bounds: 'order', slots: 'record' },
  tone: { details: 'order', layers: 'record', swatches: 'record', laid: 'records', hangsOn: 'record' },
};
