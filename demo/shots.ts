/** The shots built with starters: Vent smoke, The gather, Skylight strike, Burst flask. Seeds and settings, no hand-placed drawings. */
import { find, type ShotDocument } from '@tallow/core/document';
import { addGuide, addPath, setPath, setPlan } from '@tallow/core/edit';
import { seededIds } from '@tallow/core/geometry';
import { PHASE_SETS, phasesFrom, wayThrough } from '@tallow/core/plan';
import { flaskBench, gatherRoom, roofAtNight, skylight, WORKSHOP } from './backdrop.ts';
import { BURST_FLASK_ID, SKYLIGHT_STRIKE_ID, THE_GATHER_ID, VENT_SMOKE_ID } from './ids.ts';
import { addElementTo, finishedWith, lay, newShot, stillElement, swatchesFor, type Look } from './scene.ts';

const shapesOf = (name: string) => PHASE_SETS.find((set) => set.name === name)!;

/** A plume that rises from a vent and thins over the roofs, round and round. */
export function ventSmoke(): ShotDocument {
  const newId = seededIds(2201);
  const { swatches, swatch } = swatchesFor(
    {
      line: ['soot line', 'outline', '#141b24'],
      light: ['smoke light', 'light', '#aebccb'],
      shade: ['smoke shade', 'shade', '#46535f'],
      body: ['smoke', 'body', '#73828f'],
      sky1: ['night', 'hole', '#0e141d'],
      sky2: ['dusk', 'hole', '#162231'],
      moon: ['moon', 'light', '#d9dfd6'],
      star: ['star', 'light', '#7f8c9c'],
      far: ['far roofs', 'shade', '#101922'],
      roof: ['roof', 'shade', '#0b1118'],
      pane: ['pane', 'light', '#6a3d1c'],
      paneHot: ['pane hot', 'light', '#a9601f'],
      vent: ['iron', 'shade', '#1b242d'],
      ventLit: ['iron lit', 'light', '#4d5d6b'],
      ventRim: ['rim', 'shade', '#2a3641'],
    },
    newId,
  );
  const start = newShot(VENT_SMOKE_ID, { name: 'Vent smoke', length: 96, background: '#0e141d' }, swatches, newId);
  const smoke = addElementTo(start, 'Vent smoke', { x: 730, y: 742 }, newId);
  const walled = stillElement(smoke.doc, 'Roofs', roofAtNight(swatch, newId), 'behind', newId);
  const laid = lay(
    walled,
    smoke.elementId,
    'smoke',
    {
      seed: 23,
      settings: { height: 720, width: 230, puffs: 9, growth: 130, drift: 330, curl: 70, thin: 42, light: 60, sway: 34 },
      length: 48,
      hold: 3,
    },
    newId,
  );
  return finishedWith(
    laid,
    {
      'Smoke body': [
        {
          kind: 'texture',
          choices: { form: 'smoke', moves: 'drifts' },
          swatch: swatch('shade'),
          numbers: { strength: 55, scale: 34 },
        },
      ],
      'Smoke light': [
        {
          kind: 'texture',
          choices: { form: 'grain', moves: 'drifts' },
          swatch: swatch('body'),
          numbers: { strength: 30, scale: 22 },
        },
      ],
    },
    newId,
  );
}

/** A gob of glass thrown from the furnace mouth to the block, along a path with ticks. */
export function theGather(): ShotDocument {
  const newId = seededIds(3301);
  const { swatches, swatch } = swatchesFor(
    {
      line: ['glass line', 'outline', '#7a2a12'],
      body: ['molten', 'body', '#f28a2e'],
      light: ['molten light', 'light', '#ffe3a1'],
      shade: ['molten shade', 'shade', '#c9531c'],
      ...WORKSHOP,
    },
    newId,
  );
  const start = newShot(THE_GATHER_ID, { name: 'The gather', length: 40, background: '#171419' }, swatches, newId);
  const origin = { x: 150, y: 640 };
  const glass = addElementTo(start, 'Gather', origin, newId);
  const walled = stillElement(glass.doc, 'Workshop', gatherRoom(swatch, newId), 'behind', newId);
  const way = wayThrough(
    [
      { x: 0, y: 0 },
      { x: 330, y: -330 },
      { x: 800, y: -430 },
      { x: 1180, y: -190 },
      { x: 1380, y: 100 },
    ],
    false,
  );
  const added = addPath(walled, glass.elementId, { nodes: way, closed: false }, 0, newId);
  const spaced = setPath(added.doc, added.pathId, {
    name: 'Gather',
    ticks: 16,
    softStart: 0.2,
    softEnd: 0,
    slows: [{ id: newId(), at: 0.5, width: 0.3, amount: 0.45 }],
    standIn: { ...find(added.doc, 'path', added.pathId)!.standIn, sizeStart: 120, sizeEnd: 130, stretch: 0.5 },
  });
  const guided = addGuide(spaced, null, 'level', { x: 960, y: 930, toX: 1160, toY: 930 }, newId).doc;
  const phased = setPlan(guided, glass.elementId, { phases: phasesFrom(shapesOf('Throw'), 36, newId) });
  const laid = lay(
    phased,
    glass.elementId,
    'liquid',
    {
      seed: 12,
      pathId: added.pathId,
      settings: { form: 0, size: 150, trail: 120, neck: 50, spread: 55, drops: 9 },
      length: 36,
      hold: null,
    },
    newId,
  );
  const warm: Look = { kind: 'glow', numbers: { radius: 34, strength: 60, radii: 2 } };
  return finishedWith(laid, { 'Liquid body': [warm], Drops: [warm] }, newId);
}

/** Lightning behind the bars of the skylight: it strikes, lets go, and strikes elsewhere. */
export function skylightStrike(): ShotDocument {
  const newId = seededIds(4401);
  const { swatches, swatch } = swatchesFor(
    {
      bolt: ['bolt', 'body', '#a9b8ff'],
      hot: ['bolt core', 'core', '#ffffff'],
      glow: ['bolt glow', 'light', '#5d6fd6'],
      storm1: ['storm', 'hole', '#10131f'],
      storm2: ['cloud', 'hole', '#181d2f'],
      storm3: ['cloud low', 'hole', '#1f2438'],
      town: ['town', 'shade', '#0a0c14'],
      iron: ['iron', 'shade', '#07080d'],
      ironLit: ['iron lit', 'light', '#2d3350'],
    },
    newId,
  );
  const start = newShot(
    SKYLIGHT_STRIKE_ID,
    { name: 'Skylight strike', length: 48, background: '#10131f' },
    swatches,
    newId,
  );
  const { sky, bars } = skylight(swatch, newId);
  const origin = { x: 760, y: -30 };
  const bolt = addElementTo(start, 'Strike', origin, newId);
  const walled = stillElement(bolt.doc, 'Storm', sky, 'behind', newId);
  const struck = lay(
    walled,
    bolt.elementId,
    'bolt',
    {
      seed: 9,
      settings: {
        length: 930,
        direction: 284,
        width: 34,
        forks: 6,
        reach: 46,
        strikes: 4,
        lives: 6,
        dark: 4,
        elsewhere: 85,
        glow: 80,
        impact: 150,
      },
      length: 40,
      hold: 1,
    },
    newId,
  );
  const lit = finishedWith(
    struck,
    {
      Bolt: [{ kind: 'glow', numbers: { radius: 60, strength: 110, radii: 3 }, swatch: swatch('glow') }],
      'Bolt core': [{ kind: 'glow', numbers: { radius: 12, strength: 90, radii: 1 } }],
    },
    newId,
  );
  return stillElement(lit, 'Bars', bars, 'in front', newId);
}

/** A flask that bursts on its stand: flash, billows, shards and sparks. */
export function burstFlask(): ShotDocument {
  const newId = seededIds(5501);
  const { swatches, swatch } = swatchesFor(
    {
      line: ['soot line', 'outline', '#0f1317'],
      light: ['burst light', 'light', '#a98f7b'],
      shade: ['burst shade', 'shade', '#4a3c38'],
      body: ['burst smoke', 'body', '#75625a'],
      fire: ['burst fire', 'body', '#f07a2a'],
      hot: ['hot', 'core', '#fff3cf'],
      flash: ['flash', 'light', '#ffc25c'],
      wall: ['wall', 'hole', '#151a1e'],
      glow1: ['glow 1', 'hole', '#192126'],
      glow2: ['glow 2', 'hole', '#1f2a2f'],
      shelf: ['shelf', 'shade', '#0f1417'],
      glass: ['glass', 'light', '#2a3d43'],
      bench: ['bench', 'shade', '#1a1512'],
      benchLit: ['bench edge', 'light', '#3d2f26'],
      stand: ['stand', 'shade', '#2a2220'],
    },
    newId,
  );
  const start = newShot(BURST_FLASK_ID, { name: 'Burst flask', length: 48, background: '#151a1e' }, swatches, newId);
  const origin = { x: 960, y: 640 };
  const burst = addElementTo(start, 'Flask', origin, newId, 4);
  const phased = setPlan(burst.doc, burst.elementId, { phases: phasesFrom(shapesOf('Explosion'), 40, newId) });
  const blown = lay(
    phased,
    burst.elementId,
    'burst',
    {
      seed: 31,
      settings: { size: 620, billows: 10, burns: 42, fragments: 30, sparks: 48, fall: 420, rise: 120, light: 90 },
      length: 40,
      hold: null,
    },
    newId,
  );
  const lit = finishedWith(
    blown,
    {
      'Burst flash': [{ kind: 'glow', numbers: { radius: 70, strength: 90, radii: 2 } }],
      'Burst core': [{ kind: 'glow', numbers: { radius: 30, strength: 70, radii: 2 } }],
      'Burst sparks': [{ kind: 'glow', numbers: { radius: 10, strength: 90, radii: 1 } }],
      'Burst body': [
        { kind: 'texture', choices: { form: 'grain' }, swatch: swatch('shade'), numbers: { strength: 40, scale: 26 } },
      ],
    },
    newId,
  );
  return stillElement(lit, 'Bench', flaskBench(swatch, newId), 'behind', newId);
}
