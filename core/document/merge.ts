/**
 * Three-way merging: what two sides made of one body since a common base, put together by id and
 * field by field. Used for saves that met a newer body and for undo across somebody else's change.
 */
import { derivedId } from './derived-id.ts';
import { MERGE_RULES, type MergeRule } from './merge-rules.ts';
import type { Drawing, Entity, Id, Mark } from './types.ts';

/** A merged body, and the fields both sides changed differently; those hold the value of `theirs`. */
export interface Merged<E extends Entity = Entity> {
  readonly merged: E;
  readonly clashes: readonly string[];
}

/** Whether two plain values are the same in content. Typed arrays compare by their numbers. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (a instanceof Float32Array || b instanceof Float32Array) {
    return (
      a instanceof Float32Array &&
      b instanceof Float32Array &&
      a.length === b.length &&
      a.every((v, i) => Object.is(v, b[i]))
    );
  }
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => Object.hasOwn(right, key) && same(left[key], right[key]))
  );
}

/**
 * Merges two orders of ids made from one base. What either side took out is out, what either side
 * put in is in, after the neighbour it was put behind; where both moved things, the order of `theirs` holds.
 */
export function mergeOrder(base: readonly Id[], ours: readonly Id[], theirs: readonly Id[]): Id[] {
  const inBase = new Set(base);
  const inOurs = new Set(ours);
  const inTheirs = new Set(theirs);
  const kept = (id: Id) => (inBase.has(id) ? inOurs.has(id) && inTheirs.has(id) : true);
  const weMoved = !same(
    ours.filter((id) => inBase.has(id)),
    base.filter((id) => inOurs.has(id)),
  );
  const theyMoved = !same(
    theirs.filter((id) => inBase.has(id)),
    base.filter((id) => inTheirs.has(id)),
  );
  const [lead, other] = weMoved && !theyMoved ? [ours, theirs] : [theirs, ours];
  const result = lead.filter(kept);
  const present = new Set(result);
  other.forEach((id, index) => {
    if (present.has(id) || !kept(id)) return;
    let at = -1;
    for (let before = index - 1; before >= 0 && at < 0; before--) at = result.indexOf(other[before]!);
    // Two things put behind the same neighbour stand as: the leading side's first, then the other's.
    let spot = at + 1;
    while (spot < result.length && !inBase.has(result[spot]!) && !other.includes(result[spot]!)) spot++;
    result.splice(spot, 0, id);
    present.add(id);
  });
  return result;
}

interface Choice<T> {
  readonly value: T;
  readonly clash: boolean;
}

/** Chooses between two values of a field: whoever changed it; `theirs` when both did. */
function choose<T>(base: T, ours: T, theirs: T): Choice<T> {
  if (same(ours, theirs) || same(base, ours)) return { value: theirs, clash: false };
  if (same(base, theirs)) return { value: ours, clash: false };
  return { value: theirs, clash: true };
}

/** Merges records by key; a key one side took out and the other changed stays, changed. */
function mergeRecord<T>(
  base: Readonly<Record<Id, T>>,
  ours: Readonly<Record<Id, T>>,
  theirs: Readonly<Record<Id, T>>,
): { record: Record<Id, T>; clashes: { id: Id; ours: T }[] } {
  const record: Record<Id, T> = {};
  const clashes: { id: Id; ours: T }[] = [];
  for (const id of new Set([...Object.keys(base), ...Object.keys(theirs), ...Object.keys(ours)])) {
    const choice = choose<T | undefined>(base[id], ours[id], theirs[id]);
    const value = choice.clash ? (theirs[id] ?? ours[id]) : choice.value;
    if (value !== undefined) record[id] = value;
    const mine = ours[id];
    if (choice.clash && mine !== undefined && theirs[id] !== undefined) clashes.push({ id, ours: mine });
  }
  return { record, clashes };
}

/**
 * Marks are kept by both: where both changed one, the second stays beside it as a mark of its own. Its id hangs on
 * the mark and what it became, so that the same merge made again adds nothing.
 */
function mergeDrawing(base: Drawing, ours: Drawing, theirs: Drawing): Merged<Drawing> {
  const { record, clashes } = mergeRecord<Mark>(base.marks, ours.marks, theirs.marks);
  let order = mergeOrder(base.order, ours.order, theirs.order).filter((id) => record[id]);
  order = [...order, ...Object.keys(record).filter((id) => !order.includes(id))];
  for (const clash of clashes) {
    const id = derivedId(clash.id, clash.ours);
    if (record[id]) continue;
    record[id] = { ...clash.ours, id };
    order.splice(order.indexOf(clash.id) + 1, 0, id);
  }
  return { merged: { ...theirs, marks: record, order }, clashes: [] };
}

interface Thing {
  readonly id: Id;
}

function mergeThings(
  base: readonly Thing[],
  ours: readonly Thing[],
  theirs: readonly Thing[],
): Choice<readonly Thing[]> {
  const byId = (things: readonly Thing[]) => Object.fromEntries(things.map((each) => [each.id, each]));
  const ids = (things: readonly Thing[]) => things.map(({ id }) => id);
  const { record, clashes } = mergeRecord<Thing>(byId(base), byId(ours), byId(theirs));
  const order = mergeOrder(ids(base), ids(ours), ids(theirs)).filter((id) => record[id]);
  const left = Object.keys(record).filter((id) => !order.includes(id));
  return { value: [...order, ...left].map((id) => record[id]!), clash: clashes.length > 0 };
}

type Plain = Readonly<Record<string, unknown>>;

function mergeRecords(base: Plain, ours: Plain, theirs: Plain): Choice<Plain> {
  const { record, clashes } = mergeRecord<unknown>(base, ours, theirs);
  for (const { id } of clashes) {
    const each = [base[id] ?? {}, ours[id], theirs[id]] as [Plain, Plain, Plain];
    record[id] = mergeRecord<unknown>(...each).record;
  }
  return { value: record, clash: false };
}

function mergeField(rule: MergeRule | undefined, base: unknown, ours: unknown, theirs: unknown): Choice<unknown> {
  switch (rule) {
    case 'order':
      return { value: mergeOrder(base as Id[], ours as Id[], theirs as Id[]), clash: false };
    case 'things':
      return mergeThings(base as Thing[], ours as Thing[], theirs as Thing[]);
    case 'fields':
    case 'record': {
      const { record, clashes } = mergeRecord(base as Plain, ours as Plain, theirs as Plain);
      return { value: record, clash: clashes.length > 0 };
    }
    case 'records':
      return mergeRecords(base as Plain, ours as Plain, theirs as Plain);
    default:
      return choose(base, ours, theirs);
  }
}

/** What two bodies of one id, of which none was made from the other, have in common: no parts, otherwise what theirs says. */
function nothingCommon<E extends Entity>(theirs: E): E {
  const rules = MERGE_RULES[theirs.kind] as Readonly<Record<string, MergeRule>>;
  const parts = Object.entries(rules).flatMap(([field, rule]): [string, unknown][] => {
    if (rule === 'order' || rule === 'things') return [[field, []]];
    return rule === 'record' || rule === 'records' ? [[field, {}]] : [];
  });
  return { ...theirs, ...Object.fromEntries(parts) };
}

/**
 * Merges two bodies made from `base`; without one, all parts of both are kept. The result hangs on the three bodies alone, and merging it once more with
 * either side changes nothing: a save may be repeated.
 */
export function mergeEntity<E extends Entity>(from: E | undefined, ours: E, theirs: E): Merged<E> {
  const base = from ?? nothingCommon(theirs);
  if (base.kind === 'drawing') {
    return mergeDrawing(base, ours as Drawing, theirs as Drawing) as Merged as Merged<E>;
  }
  const rules = MERGE_RULES[base.kind] as Readonly<Record<string, MergeRule>>;
  const merged: Record<string, unknown> = { ...theirs };
  const clashes: string[] = [];
  for (const field of Object.keys(theirs) as (keyof E & string)[]) {
    const choice = mergeField(rules[field], base[field], ours[field], theirs[field]);
    merged[field] = choice.value;
    if (choice.clash) clashes.push(field);
  }
  return { merged: merged as unknown as E, clashes };
}
