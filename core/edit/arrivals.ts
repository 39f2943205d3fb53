/** Around a contact: a drawing put in before the one that arrives, and the timing kept in three ways to be played in turn. */
import {
  find,
  type Drawing,
  type Id,
  type Mark,
  type NewId,
  type Run,
  type ShotDocument,
  putEntities,
} from '../document/index.ts';
import type { BetweenWork } from '../between/index.ts';
import type { Smeared } from '../smears/index.ts';
import { drawingOf } from '../starters/index.ts';
import { placeOf, runStart, setHold } from '../timing/index.ts';
import { gapAt, layBetweens, type BetweenPlan } from './betweens.ts';
import { keptFull, type Timed } from './place.ts';
import { laySmear } from './smears.ts';
import type { SmearPlan } from './smear-ways.ts';
import { tiedTo } from './sweep.ts';
import { tonedBetween } from './tied-betweens.ts';
import { tonesOf } from './tones.ts';
import { keepVariant, layerScope, nameVariant, showVariant, variantsAbout } from './variants.ts';

/**
 * Puts drawings in on the frame a drawing arrives on, for one frame: it is taken from that drawing's own hold, so that nothing
 * later moves; where it has but one, a frame is put in.
 * @param marks by layer; layers tied that have none go on with the drawing that arrives, but for tone, which is cut anew.
 */
export function putArrival(
  doc: ShotDocument,
  layerId: Id,
  to: Id,
  marks: ReadonlyMap<Id, readonly Mark[]>,
  newId: NewId,
): Timed {
  const { timed, element } = placeOf(doc, layerId);
  const at = timed.list.runs.findIndex(({ slot }) => slot === to);
  if (at < 0) return { doc, frame: 0 };
  const slot = newId();
  const hold = timed.list.runs[at]!.length;
  const kept = hold > 1 ? setHold(timed.list, at, hold - 1) : timed.list;
  const run: Run = { id: newId(), slot, length: 1 };
  const list = { ...kept, runs: kept.runs.toSpliced(at, 0, run) };
  const made: Drawing[] = [];
  const bodies = new Set(marks.keys());
  const cutAnew = new Set(tonesOf(doc, bodies));
  const layers = tiedTo(doc, list.id).flatMap((layer) => {
    const own = marks.get(layer.id);
    if (own) {
      const drawing = drawingOf(newId(), own);
      made.push(drawing);
      return [{ ...layer, slots: { ...layer.slots, [slot]: drawing.id } }];
    }
    const shown = layer.slots[to];
    return shown && !cutAnew.has(layer.id) ? [{ ...layer, slots: { ...layer.slots, [slot]: shown } }] : [];
  });
  const put = putEntities(doc, list, ...made, ...layers);
  const toned = tonedBetween(put, bodies, { from: to, to }, [slot]);
  const next = keptFull(doc, toned, element);
  const place = placeOf(next, layerId);
  return { doc: next, frame: runStart(place.timed.list, at, place.turn) };
}

/** What a contact is tried with. */
interface ContactWays {
  readonly between: {
    readonly plan: BetweenPlan;
    readonly drawing: Pick<Drawing, 'marks' | 'order'>;
    readonly work: BetweenWork;
  };
  readonly stretch: { readonly plan: SmearPlan; readonly smeared: Smeared; readonly replaces: Id | null };
}

/** Their names, as variants. */
export const CONTACT_NAMES = ['without', 'one drawing more', 'stretched'] as const;

/**
 * Keeps the timing round a contact three ways, as variants: as it is, with a drawing more, and with a stretch. The stretch is shown.
 * @param frame on which the drawing before shows. Needs all drawings of the layers loaded.
 */
export function layContactWays(
  doc: ShotDocument,
  layerId: Id,
  frame: number,
  { between, stretch }: ContactWays,
  newId: NewId,
): ShotDocument {
  const { element } = placeOf(doc, layerId);
  const scope = layerScope(doc, layerId);
  const live = (now: ShotDocument) => variantsAbout(now, element.id, scope).find(({ held }) => held === null)!;
  // What is there now is kept, and is where the others begin from.
  let next = keepVariant(doc, element.id, scope, newId);
  const plain = variantsAbout(next, element.id, scope)
    .filter(({ held }) => held !== null)
    .at(-1)!;
  next = nameVariant(next, plain.id, CONTACT_NAMES[0]);
  const gap = gapAt(next, layerId, frame);
  if (gap) next = layBetweens(next, gap, between.plan, [between.drawing], between.work, 'insert', newId).doc;
  next = nameVariant(next, live(next).id, CONTACT_NAMES[1]);
  // The third begins from the first as well: a copy of it is shown.
  next = showVariant(next, plain.id);
  next = keepVariant(next, element.id, scope, newId);
  next = laySmear(next, stretch.plan, stretch.smeared, stretch.replaces, newId).doc;
  const now = live(next);
  next = nameVariant(next, now.id, CONTACT_NAMES[2]);
  return find(next, 'variant', plain.id) ? nameVariant(next, plain.id, CONTACT_NAMES[0]) : next;
}
