/** What was laid from lines goes with them: fills and tone that are moved together with what they hang on are as laid still. */
import {
  entitiesOf,
  find,
  putEntities,
  type Drawing,
  type Fill,
  type FilledRegion,
  type Id,
  type ShotDocument,
  type Tone,
} from '../document/index.ts';
import { boundDrawings, boundsFingerprint, isAsLaid, outlineOf, fingerprintOf } from '../derived/index.ts';
import { pointWithin } from '../geometry/index.ts';
import { frameOfSlot } from '../timing/index.ts';

/** A region as it lies after its shape was moved. */
function regionMoved(region: FilledRegion, before: ShotDocument, now: Drawing): FilledRegion {
  const { markId, print } = region;
  const mark = now.marks[markId];
  if (mark?.kind !== 'shape' || !isAsLaid(before, { drawingId: now.id, markId, print })) return region;
  const within = pointWithin(mark.rings);
  return within ? { ...region, ...within, print: outlineOf(mark) } : region;
}

function fillMoved(before: ShotDocument, after: ShotDocument, fill: Fill, drawings: ReadonlySet<Id>): Fill {
  const shown = find(after, 'layer', fill.layerId)?.slots ?? {};
  const slots = { ...fill.slots };
  let changed = false;
  for (const [slot, own] of Object.entries(fill.slots)) {
    const drawing = drawings.has(shown[slot] ?? '') ? find(after, 'drawing', shown[slot]) : undefined;
    const frame = drawing ? frameOfSlot(before, fill.layerId, slot) : null;
    if (!drawing || frame === null) continue;
    const bound = boundDrawings(before, fill, frame);
    // Fills that leave their lines are changed by hand.
    if (!bound?.length || !bound.every(({ id }) => drawings.has(id))) continue;
    const isFresh = boundsFingerprint(before, fill, frame) === own.hangsOn;
    slots[slot] = {
      ...own,
      hangsOn: (isFresh ? boundsFingerprint(after, fill, frame) : null) ?? own.hangsOn,
      regions: own.regions.map((region) => regionMoved(region, before, drawing)),
    };
    changed = true;
  }
  return changed ? { ...fill, slots } : fill;
}

/** Tone that went with its body is as it was laid: it is cut anew for the body by whoever follows that. */
function toneMoved(before: ShotDocument, after: ShotDocument, tone: Tone, drawings: ReadonlySet<Id>): Tone {
  const body = find(after, 'layer', tone.bodyId)?.slots ?? {};
  let changed = false;
  const laid = Object.fromEntries(
    Object.entries(tone.laid).map(([layerId, prints]) => {
      const shown = find(after, 'layer', layerId)?.slots ?? {};
      const moved = Object.entries(prints).map(([slot, print]) => {
        const [was, now] = [find(before, 'drawing', shown[slot]), find(after, 'drawing', shown[slot])];
        const goes = was && now && was !== now && drawings.has(now.id) && drawings.has(body[slot] ?? '');
        if (!goes || fingerprintOf(was) !== print) return [slot, print] as const;
        changed = true;
        return [slot, fingerprintOf(now)] as const;
      });
      return [layerId, Object.fromEntries(moved)] as const;
    }),
  );
  return changed ? { ...tone, laid } : tone;
}

/**
 * Keeps fills and tone of drawings that were changed together with the drawings they hang on: they count as laid, not as
 * changed by hand.
 * @param before the document before the marks were changed. @param after the same with the marks changed.
 * @param drawings all drawings that were changed.
 */
export function movedAlong(before: ShotDocument, after: ShotDocument, drawings: ReadonlySet<Id>): ShotDocument {
  const fills = entitiesOf(after, 'fill').flatMap((fill) => {
    const moved = fillMoved(before, after, fill, drawings);
    return moved === fill ? [] : [moved];
  });
  const tones = entitiesOf(after, 'tone').flatMap((tone) => {
    const moved = toneMoved(before, after, tone, drawings);
    return moved === tone ? [] : [moved];
  });
  return fills.length + tones.length > 0 ? putEntities(after, ...fills, ...tones) : after;
}
