/**
 * What has to be said of a kind of entity, all of it in the kind's own file: what its body must be, how two bodies are
 * merged, what it points at, what of it changes over time, how it stands in JSON. Checks, saving, merging, copying,
 * replacing swatches and deleting all go by this.
 */
import { z } from 'zod';
import type { Id } from '../id.ts';
import type { Merged } from '../merge-fields.ts';
import type { Value } from '../value.ts';

export interface Body {
  readonly kind: string;
  readonly id: Id;
}

/**
 * How a field of a body hangs on what it points at:
 * - `owner`: it belongs to it, is deleted with it, and cannot be without it.
 * - `follows`: it is deleted with it, but is no more than told that it was there.
 * - `lists`: it is one of the things that it holds; gone from the list once deleted.
 * - `entry`: an entry of a list is about it, and goes with it; it may be gone.
 * - `needs`: it must be there.
 * - `seeks`: it is looked up, and may be gone.
 * - `holds`: it lies inside this body under an id that a row of its own may have.
 */
export type Bond = 'owner' | 'follows' | 'lists' | 'entry' | 'needs' | 'seeks' | 'holds';

export interface Pointer {
  /** Where it stands, as a path from the body's root. */
  readonly field: string;
  /** The kind it points at. */
  readonly to: string;
  readonly bond: Bond;
  /** What is pointed at is deleted once nothing keeps it any more. */
  readonly keeps?: true;
  /** Of a swatch: what it is used for here, in the words of the interface. */
  readonly use?: string;
}

/** What an id becomes; null for gone, which takes it out of lists and records and leaves it where there must be one. */
export type IdMap = (id: Id, pointer: Pointer) => Id | null;

/**
 * How a field is put together when two sides changed it. Numbers, texts and yes or no need no rule: whoever changed
 * one has it.
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

/** A rule for every field that needs one: the compiler names one that was forgotten. */
type RulesOf<E> = {
  readonly [F in keyof E as RuleFor<NonNullable<E[F]>> extends never ? never : F]: RuleFor<NonNullable<E[F]>>;
};

export interface Kind<E extends Body> {
  readonly kind: E['kind'];
  /** Of its body as it is stored; bodies that say none are of version 1. */
  readonly version: number;
  /** What makes a stored body of version i + 1 one of the next version. */
  readonly upgrades?: readonly ((body: Record<string, unknown>) => Record<string, unknown>)[];
  readonly schema: z.ZodType<E>;
  readonly merge: RulesOf<E>;
  /** Merging that goes beyond fields. */
  readonly mergeWhole?: (base: E, ours: E, theirs: E) => Merged<E>;
  /** The kinds it points at, so that others need not be asked. */
  readonly points: readonly string[];
  /** The body with each id it points at put through a map; itself where none of them changes. */
  readonly mapIds: (entity: E, of: IdMap) => E;
  /** The body with each of its values over time changed. */
  readonly mapValues?: (entity: E, change: (value: Value) => Value) => E;
  /** Contents from outside that it shows or plays, by their SHA-256. */
  readonly assets?: (entity: E) => readonly string[];
  /** The body in JSON, where that is not the body itself: columns are text there. */
  readonly encode?: (entity: E) => Record<string, unknown>;
}

/** A kind as its file says it: the schema is put together when a body of the kind is first read, all at once took 60 ms. */
type SaidKind<E extends Body> = Omit<Kind<E>, 'schema'> & { readonly schema: () => z.ZodType<E> };

/** Says what a kind is; the compiler holds its schema to its type, field by field. */
export const kindOf = <E extends Body>({ schema, ...rest }: SaidKind<E>): Kind<E> => ({
  ...rest,
  schema: z.lazy(schema),
});

/** An entity that belongs to an element. */
export const OF_ELEMENT: Pointer = { field: 'elementId', to: 'element', bond: 'owner' };

/** One id that has to stay one. */
export const one = (id: Id, of: IdMap, pointer: Pointer): Id => of(id, pointer) ?? id;

export const maybe = (id: Id | null, of: IdMap, pointer: Pointer): Id | null => (id === null ? null : of(id, pointer));

/** A list of things put through a change that may take some out; itself where nothing changes. */
export function each<T>(list: readonly T[], change: (thing: T) => T | null): readonly T[] {
  const next = list.map(change);
  if (next.every((thing, i) => thing === list[i])) return list;
  return next.filter((thing): thing is NonNullable<typeof thing> => thing !== null);
}

export const list = (ids: readonly Id[], of: IdMap, pointer: Pointer): readonly Id[] =>
  each(ids, (id) => of(id, pointer));

/** A record put through a change of its entries that may take some out; itself where nothing changes. */
export function entries<R extends Readonly<Record<string, unknown>>>(
  record: R,
  change: (key: string, value: NonNullable<R[string]>) => readonly [string, unknown] | null,
): R {
  const all = Object.entries(record) as [string, NonNullable<R[string]>][];
  const next = all.map(([key, value]) => change(key, value));
  if (next.every((entry, i) => entry?.[0] === all[i]![0] && entry[1] === all[i]![1])) return record;
  return Object.fromEntries(next.flatMap((entry) => (entry ? [entry] : []))) as R;
}

/** The ids that are the values of a record. */
export const record = <R extends Readonly<Record<string, Id | undefined>>>(ids: R, of: IdMap, pointer: Pointer): R =>
  entries(ids, (key, id) => {
    const next = of(id, pointer);
    return next === null ? null : [key, next];
  });

/** The entity with some fields set; itself where they are what they were. */
export function withFields<E extends object>(entity: E, fields: Partial<E>): E {
  return Object.entries(fields).every(([key, value]) => entity[key as keyof E] === value)
    ? entity
    : { ...entity, ...fields };
}
