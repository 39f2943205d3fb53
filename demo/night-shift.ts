/**
 * The shot *Night shift*: what the other shots made, assembled at five depths: beams before all, the bench, the furnace, its smoke
 * twice out of step, and a stormy sky with lightning twice; a flask bursts on the bench three times, once on a tilted plane. Light
 * falls from the fire, the bursts and the lightning; the camera goes in and shakes at the bursts; far planes pale in the air; all of it is heard.
 */
import {
  find,
  findAll,
  putEntities,
  shotOf,
  type Id,
  type Light,
  type NewId,
  type Placement,
  type ShotDocument,
} from '@tallow/core/document';
import {
  addLook,
  addLightOf,
  addPlane,
  addShake,
  copyPlacement,
  movePlacement,
  newLook,
  pasteParts,
  raisePlacement,
  setCamera,
  setCameraKey,
  setDepthOfShot,
  setPlacements,
  setPlane,
  setPlaneDepth,
  setShake,
  takeParts,
  type PlacementSettings,
} from '@tallow/core/edit';
import { depthScale } from '@tallow/core/assembly';
import { timedLayers, placementsOf } from '@tallow/core/timing';
import { seededIds } from '@tallow/core/geometry';
import { Backdrop } from './backdrop.ts';
import { furnaceMouth } from './furnace-mouth.ts';
import { NIGHT_SHIFT_ID } from './ids.ts';
import { withNightSounds, type Recorded } from './night-sounds.ts';
import { newShot, stillElement, swatchesFor } from './scene.ts';
import { burstFlask, skylightStrike, ventSmoke } from './shots.ts';

const PALETTE = {
  bench: ['bench', 'shade', '#1d1613'],
  top: ['bench top', 'light', '#3b2b22'],
  leg: ['bench leg', 'shade', '#120d0b'],
  jar: ['jar', 'shade', '#27393c'],
  mouth: ['mouth', 'shade', '#170c08'],
  beam: ['beam', 'shade', '#0a0807'],
  rivet: ['rivet', 'shade', '#191310'],
  air: ['night air', 'shade', '#1f2c48'],
  ember: ['ember light', 'light', '#ff9a3c'],
  flash: ['flash light', 'light', '#ffe2a0'],
  bolt: ['bolt light', 'light', '#8fb4ff'],
} as const;

const LENGTH = 144;
/** px of depth; the bench is the picture plane. */
const DEPTHS = { front: -260, furnace: 400, smoke: 900, storm: 2400 } as const;
/** px from which it is seen: the width of the picture. */
const FOCAL = 1920;

/** A number that stays the same. */
const is = (constant: number) => ({ constant });
/** Where a use is put: scaled and turned about its anchor. */
const put = (scale: number, angle = 0): Pick<Placement, 'shift'> => ({
  shift: { x: is(0), y: is(0), scale: is(scale), angle: is(angle) },
});

type LightSettings = Partial<Pick<Light, 'swatch' | 'radius' | 'strength' | 'follows' | 'smooth' | 'reach'>>;

/** Brings an element of another shot in, used once. */
function brought(doc: ShotDocument, from: ShotDocument, name: string, newId: NewId): { doc: ShotDocument; use: Id } {
  const element = findAll(from, 'element', shotOf(from).elements).find((each) => each.name === name)!;
  const pasted = pasteParts(doc, takeParts(from, [element.id]), '', newId);
  return { doc: pasted.doc, use: placementsOf(pasted.doc, pasted.copies.get(element.id)!)[0]!.id };
}

/** Builds the whole shot. The same on every call. @param recorded its sounds as they are kept; without, it is silent. */
export function nightShift(recorded: Recorded = () => null): ShotDocument {
  const newId = seededIds(1701);
  const { swatches, swatch } = swatchesFor(PALETTE, newId);
  let doc = newShot(NIGHT_SHIFT_ID, { name: 'Night shift', length: LENGTH, background: '#0c111b' }, swatches, newId);
  const [bench] = shotOf(doc).planes as [Id];
  doc = setPlane(doc, bench, { name: 'bench' });
  const plane = (name: keyof typeof DEPTHS): Id => {
    const added = addPlane(doc, name, null, newId);
    doc = setPlaneDepth(added.doc, added.planeId, DEPTHS[name]);
    return added.planeId;
  };
  const [front, furnace, smoke, storm] = [plane('front'), plane('furnace'), plane('smoke'), plane('storm')];
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

  const still = (name: string, { marks }: Backdrop, on: Id): void => {
    const made = stillElement(doc, name, marks, 'in front', newId);
    const element = findAll(made, 'element', shotOf(made).elements).find((each) => each.name === name)!;
    doc = movePlacement(made, placementsOf(made, element.id)[0]!.id, { planeId: on });
  };
  /** Put where it is seen at a place of the picture, as large as that: far planes are drawn larger. */
  const seenAt = (depth: number, x: number, y: number, scale: number, angle = 0): PlacementSettings => {
    const near = depthScale(FOCAL, depth);
    return { x: 960 + (x - 960) / near, y: 540 + (y - 540) / near, ...put(scale / near, angle) };
  };
  const light = (source: Id, name: string, settings: LightSettings): void => {
    const added = addLightOf(doc, source, newId);
    const own = find(added.doc, 'light', added.lightId)!;
    doc = putEntities(added.doc, { ...own, name, ...settings });
  };

  const sky = skylightStrike();
  take(sky, 'Storm', storm, seenAt(DEPTHS.storm, -96, -54, 1.1));
  const strike = take(sky, 'Strike', storm, {
    start: 18,
    name: 'First strike',
    ...seenAt(DEPTHS.storm, 1490, -60, 0.95),
  });
  const second = again(strike, {
    start: 92,
    name: 'Second strike',
    mirror: true,
    ...seenAt(DEPTHS.storm, 1780, -70, 0.75, 0.12),
  });

  const plume = take(ventSmoke(), 'Vent smoke', smoke, { name: 'Near smoke', ...seenAt(DEPTHS.smoke, 1440, 700, 0.6) });
  again(plume, {
    name: 'Far smoke',
    phase: 19,
    mirror: true,
    opacity: is(0.6),
    ...seenAt(DEPTHS.smoke, 1800, 600, 0.38),
  });

  // What is seen of the furnace through its mouth, where the fire is not.
  const near = depthScale(FOCAL, DEPTHS.furnace);
  const [left, right, top, foot] = [90, 770, 230, 930] as const;
  const across = (x: number) => 960 + (x - 960) / near;
  const down = (y: number) => 540 + (y - 540) / near;
  still('Mouth', new Backdrop(swatch, newId).box('mouth', across(left), down(top), across(right), down(foot)), furnace);

  const fire = take(furnaceMouth(), 'Furnace fire', furnace, seenAt(DEPTHS.furnace, 430, 900, 0.98));
  const furnaceId = find(doc, 'placement', fire)!.elementId;
  const layers = timedLayers(doc, find(doc, 'element', furnaceId)!);
  const arch = layers.filter(({ list }) => list.period === 1).map(({ layer }) => layer.id);
  const wall = again(fire, { name: 'Wall', layers: arch });
  doc = raisePlacement(doc, wall, 1);
  doc = setPlacements(doc, [fire], {
    layers: layers.map(({ layer }) => layer.id).filter((id) => !arch.includes(id)),
  });

  const table = new Backdrop(swatch, newId)
    .box('leg', 1150, 930, 1200, 1260)
    .box('leg', 1820, 930, 1870, 1260)
    .box('bench', 1090, 880, 2160, 948)
    .box('top', 1090, 868, 2160, 886)
    .box('jar', 1756, 770, 1810, 868)
    .box('jar', 1836, 800, 1900, 868);
  still('Bench', table, bench);
  const flask = take(burstFlask(), 'Flask', bench, { start: 30, x: 1440, y: 850, name: 'Bench burst', ...put(0.62) });
  const small = again(flask, { start: 70, x: 1680, y: 850, name: 'Small burst', mirror: true, ...put(0.4) });
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

  const beams = new Backdrop(swatch, newId).box('beam', -260, -200, 96, 1300).box('beam', -260, -200, 2200, 40);
  for (let i = 0; i < 9; i++) beams.disc('rivet', 52, 100 + i * 124, 11);
  still('Beams', beams, front);
  const blur = newLook(doc, 'blur', newId);
  doc = addLook(doc, front, blur);

  light(fire, 'Firelight', { swatch: swatch('ember'), radius: is(1150), strength: is(0.85), follows: 0.7, reach: 700 });
  light(flask, 'Burst light', { swatch: swatch('flash'), radius: is(900), strength: is(1), follows: 1, reach: 600 });
  light(small, 'Small burst light', { swatch: swatch('flash'), radius: is(600), strength: is(0.8), follows: 1 });
  for (const [source, name] of [
    [strike, 'Strike light'],
    [second, 'Second strike light'],
  ] as const)
    light(source, name, {
      swatch: swatch('bolt'),
      radius: is(1500),
      strength: is(0.7),
      follows: 1,
      smooth: 0,
      reach: 2400,
    });

  doc = setDepthOfShot(doc, { air: { swatch: swatch('air'), reach: 4200 } });
  doc = [0, LENGTH - 1].reduce(
    (next, frame) => setCameraKey(setCameraKey(next, 'zoom', frame, 'soft'), 'x', frame, 'soft'),
    doc,
  );
  doc = setCamera(setCamera(doc, 'zoom', LENGTH - 1, 1.14), 'x', LENGTH - 1, 70);
  for (const [from, amount] of [
    [31, 26],
    [71, 14],
    [LENGTH - 39, 18],
  ] as const) {
    const added = addShake(doc, from, from, newId);
    doc = setShake(added.doc, added.shakeId, { amount });
  }
  return withNightSounds(doc, recorded, newId);
}
