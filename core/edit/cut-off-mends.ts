/** What is cut off by the end of its slot or of the shot, with what would mend it, each in one step. */
import { find, shotOf, type Id, type ShotDocument } from '../document/index.ts';
import { cutOff, elementLength, type CutOff } from '../timing/index.ts';
import { setPlacements } from './placements.ts';
import { setShot } from './shot.ts';

/** A mend, in words and as an edit. */
interface Mend {
  readonly label: string;
  readonly edit: (doc: ShotDocument) => ShotDocument;
}

export interface CutOffUse extends CutOff {
  /** Frames of the shot that are missing. */
  readonly missing: number;
  readonly mends: readonly Mend[];
}

const frames = (count: number): string => `${count} ${count === 1 ? 'frame' : 'frames'}`;

/** How a placement on a plane is cut off, or null. */
export function cutOfPlacement(doc: ShotDocument, placementId: Id): CutOffUse | null {
  const placement = find(doc, 'placement', placementId);
  const element = find(doc, 'element', placement?.elementId);
  if (!placement || !element) return null;
  const shot = shotOf(doc);
  const length = elementLength(doc, element);
  const cut = cutOff(placement, element, length, shot.length);
  if (!cut) return null;
  const isCycle = element.time === 'cycle';
  const { over, of } = placement.speed;
  // Of a cycle, what is missing is given in frames of the element.
  const missing = isCycle ? Math.ceil(((cut.of - cut.shown) * of) / over) : cut.of - cut.shown;
  const set = (settings: Parameters<typeof setPlacements>[2]) => (now: ShotDocument) =>
    setPlacements(now, [placementId], settings);
  const mends: Mend[] = [];
  const longer = (by: number) => (now: ShotDocument) => setShot(now, { length: shotOf(now).length + by });
  if (cut.by === 'slot') {
    const slot = set({ lasts: (placement.lasts ?? 0) + missing });
    const beyond = placement.start + (placement.lasts ?? 0) + missing - shot.length;
    mends.push(
      beyond > 0
        ? { label: `Longer slot by ${missing}, longer shot by ${beyond}`, edit: (now) => longer(beyond)(slot(now)) }
        : { label: `Longer slot by ${missing}`, edit: slot },
    );
  } else mends.push({ label: `Lengthen the shot by ${missing}`, edit: longer(missing) });
  const earlier = placement.start - missing;
  if (cut.by === 'shot' && (earlier >= 0 || isCycle))
    mends.push({ label: `Begin ${frames(missing)} earlier`, edit: set({ start: earlier }) });
  const turns = isCycle ? Math.floor((shot.length - placement.start) / Math.ceil((length * of) / over)) : 0;
  if (isCycle && turns >= 1)
    mends.push({ label: `Only whole turns: ${turns}`, edit: set({ repeats: turns, lasts: null }) });
  // Faster by just so much that all of it fits.
  const room = Math.min(placement.lasts ?? Infinity, shot.length - placement.start);
  const fits = isCycle ? null : speedFor(length - placement.phase, room);
  if (fits) mends.push({ label: `Faster: ${fits.over} to ${fits.of}`, edit: set({ speed: fits }) });
  return { ...cut, missing, mends };
}

/** The slowest speed of small numbers at which so many frames fit into a room; null where none does. */
function speedFor(length: number, room: number): { over: number; of: number } | null {
  if (room < 1) return null;
  let best: { over: number; of: number } | null = null;
  for (let of = 1; of <= 12; of++) {
    const over = Math.ceil((length * of) / room);
    if (over > 100) continue;
    if (!best || over / of < best.over / best.of) best = { over, of };
  }
  return best;
}
