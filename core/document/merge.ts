/**
 * Three-way merging: what two sides made of one body since a common base, put together by id and
 * field by field, as its kind says. Used for saves that met a newer body and for undo across somebody else's change.
 */
import type { Id } from './id.ts';
import { descriptorOf, type Entity } from './kinds/index.ts';
import type { MergeRule } from './kinds/kind.ts';
import { choose, mergeOrder, mergeRecord, type MergeChoice, type Merged } from './merge-fields.ts';

interface Thing {
  readonly id: Id;
}

function mergeThings(
  base: readonly Thing[],
  ours: readonly Thing[],
  theirs: readonly Thing[],
): MergeChoice<readonly Thing[]> {
  const byId = (things: readonly Thing[]) => Object.fromEntries(things.map((each) => [each.id, each]));
  const ids = (things: readonly Thing[]) => things.map(({ id }) => id);
  const { record, clashes } = mergeRecord<Thing>(byId(base), byId(ours), byId(theirs));
  const order = mergeOrder(ids(base), ids(ours), ids(theirs)).filter((id) => record[id]);
  const left = Object.keys(record).filter((id) => !order.includes(id));
  return { value: [...order, ...left].map((id) => record[id]!), clash: clashes.length > 0 };
}

type Plain = Readonly<Record<string, unknown>>;

function mergeRecords(base: Plain, ours: Plain, theirs: Plain): MergeChoice<Plain> {
  const { record, clashes } = mergeRecord<unknown>(base, ours, theirs);
  for (const { id } of clashes) {
    const each = [base[id] ?? {}, ours[id], theirs[id]] as [Plain, Plain, Plain];
    record[id] = mergeRecord<unknown>(...each).record;
  }
  return { value: record, clash: false };
}

function mergeField(rule: MergeRule | undefined, base: unknown, ours: unknown, theirs: unknown): MergeChoice<unknown> {
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

const rulesOf = (entity: Entity) => descriptorOf(entity).merge as Readonly<Record<string, MergeRule>>;

/** What two bodies of one id, of which none was made from the other, have in common: no parts, otherwise what theirs says. */
function nothingCommon<E extends Entity>(theirs: E): E {
  const parts = Object.entries(rulesOf(theirs)).flatMap(([field, rule]): [string, unknown][] => {
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
  const { mergeWhole } = descriptorOf(base);
  if (mergeWhole) return mergeWhole(base, ours, theirs);
  const rules = rulesOf(base);
  const merged: Record<string, unknown> = { ...theirs };
  const clashes: string[] = [];
  for (const field of Object.keys(theirs) as (keyof E & string)[]) {
    const choice = mergeField(rules[field], base[field], ours[field], theirs[field]);
    merged[field] = choice.value;
    if (choice.clash) clashes.push(field);
  }
  return { merged: merged as unknown as E, clashes };
}
