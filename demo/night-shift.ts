/**
 * The shot *Night shift*: what the other shots made, assembled on planes: the furnace before a stormy sky, its smoke twice out of
 * step, lightning twice, a flask that bursts on the bench three times, once on a tilted plane.
 */
import { findAll, shotOf, type Id, type NewId, type Placement, type ShotDocument } from '@tallow/core/document';
import {
  addPlane,
  copyPlacement,
  movePlacement,
  pasteParts,
  placementsOf,
  setPlacements,
  setPlane,
  setPlaneDepth,
  takeParts,
  type PlacementSettings,
} from '@tallow/core/edit';
import { seededIds } from '@tallow/core/geometry';
import { Backdrop } from './backdrop.ts';
import { furnaceMouth } from './furnace-mouth.ts';
import { NIGHT_SHIFT_ID } from './ids.ts';
import { newShot, stillElement, swatchesFor } from './scene.ts';
import { burstFlask, skylightStrike, ventSmoke } from './shots.ts';

const PALETTE = {
  bench: ['bench', 'shade', '#1d1613'],
  top: ['bench top', 'light', '#3b2b22'],
  leg: ['bench leg', 'shade', '#120d0b'],
  jar: ['jar', 'shade', '#27393c'],
} as const;

const LENGTH = 144;

/** A number that stays the same. */
const is = (constant: number) => ({ constant });
/** Where a use is put: scaled and turned about its anchor. */
const put = (scale: number, angle = 0): Pick<Placement, 'shift'> => ({
  shift: { x: is(0), y: is(0), scale: is(scale), angle: is(angle) },
});

/** Brings an element of another shot in, used once. */
function brought(doc: ShotDocument, from: ShotDocument, name: string, newId: NewId): { doc: ShotDocument; use: Id } {
  const element = findAll(from, 'element', shotOf(from).elements).find((each) => each.name === name)!;
  const pasted = pasteParts(doc, takeParts(from, [element.id]), '', newId);
  return { doc: pasted.doc, use: placementsOf(pasted.doc, pasted.copies.get(element.id)!)[0]!.id };
}

/** Builds the whole shot. The same on every call. */
export function nightShift(): ShotDocument {
  const newId = seededIds(1701);
  const { swatches, swatch } = swatchesFor(PALETTE, newId);
  let doc = newShot(NIGHT_SHIFT_ID, { name: 'Night shift', length: LENGTH, background: '#0c111b' }, swatches, newId);
  const [bench] = shotOf(doc).planes as [Id];
  doc = setPlane(doc, bench, { name: 'bench' });
  // Each goes behind those that are nearer.
  const plane = (name: string, depth: number): Id => {
    const added = addPlane(doc, name, null, newId);
    doc = setPlaneDepth(added.doc, added.planeId, depth);
    return added.planeId;
  };
  const [furnace, smoke, storm] = [plane('furnace', 400), plane('smoke', 900), plane('storm', 2400)];
  const take = (from: ShotDocument, name: string, on: Id, settings: PlacementSettings): Id => {
    const made = brought(doc, from, name, newId);
    doc = setPlacements(movePlacement(made.doc, made.use, { planeId: on }), [made.use], settings);
    return made.use;
  };
  const again = (use: Id, settings: PlacementSettings): Id => {
    const copied = copyPlacement(doc, use, settings, newId);
    ({ doc } = copied);
    return copied.placementId!;
  };

  const sky = skylightStrike();
  take(sky, 'Storm', storm, {});
  const strike = take(sky, 'Strike', storm, { start: 18, x: 1500, y: -40, name: 'First strike', ...put(0.9) });
  again(strike, { start: 92, x: 1790, y: -60, name: 'Second strike', mirror: true, ...put(0.7, 0.12) });

  const plume = take(ventSmoke(), 'Vent smoke', smoke, { x: 1480, y: 640, name: 'Near smoke', ...put(0.52) });
  again(plume, { x: 1770, y: 560, name: 'Far smoke', phase: 19, mirror: true, opacity: is(0.6), ...put(0.34) });

  take(furnaceMouth(), 'Furnace fire', furnace, { x: 330, y: 900, ...put(0.95) });

  const table = new Backdrop(swatch, newId)
    .box('leg', 1150, 930, 1200, 1160)
    .box('leg', 1820, 930, 1870, 1160)
    .box('bench', 1090, 880, 2000, 948)
    .box('top', 1090, 868, 2000, 886)
    .box('jar', 1756, 770, 1810, 868)
    .box('jar', 1836, 800, 1900, 868);
  doc = stillElement(doc, 'Bench', table.marks, 'in front', newId);
  const flask = take(burstFlask(), 'Flask', bench, { start: 30, x: 1470, y: 850, name: 'Bench burst', ...put(0.62) });
  again(flask, { start: 70, x: 1680, y: 850, name: 'Small burst', mirror: true, ...put(0.4) });
  // Lying on the bench: the box of the effect seen in perspective.
  again(flask, {
    start: LENGTH - 40,
    x: 1380,
    y: 872,
    name: 'Burst on the bench top',
    corners: {
      box: { left: -420, top: -420, right: 420, bottom: 420 },
      at: [
        { x: -250, y: -120 },
        { x: 330, y: -130 },
        { x: 470, y: 130 },
        { x: -420, y: 140 },
      ],
    },
    ...put(0.8),
  });
  return doc;
}
