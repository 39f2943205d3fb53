/** The shot *Furnace mouth*: a fire cycle of 24 frames on 2s in a brick arch, computed from seeds alone. */
import type { ShotDocument } from '@tallow/core/document';
import { setElement } from '@tallow/core/edit';
import { seededIds } from '@tallow/core/geometry';
import { hearthMarks } from './hearth.ts';
import { FURNACE_MOUTH_ID } from './ids.ts';
import { addElementTo, finishedWith, lay, newShot, stillLayer, swatchesFor } from './scene.ts';

const PALETTE = {
  core: ['core', 'core', '#fff1bf'],
  flame: ['flame', 'light', '#ffab2e'],
  body: ['body', 'body', '#e6571b'],
  line: ['line', 'outline', '#8a2410'],
  mouth: ['mouth', 'hole', '#0d0706'],
  mouth2: ['soot', 'hole', '#180c08'],
  mouth3: ['cinder', 'hole', '#25110a'],
  mouth4: ['ember', 'hole', '#35170b'],
  mortar: ['mortar', 'shade', '#120e0c'],
  brick1: ['dim', 'shade', '#211a17'],
  brick2: ['brick', 'shade', '#2b201b'],
  brick3: ['warm', 'shade', '#38261d'],
  brick4: ['hot', 'shade', '#472d1f'],
  arch: ['arch', 'shade', '#4a352b'],
  arch2: ['arch lit', 'light', '#5e4233'],
  anvil: ['anvil', 'shade', '#17130f'],
  anvil2: ['edge', 'light', '#4b392a'],
} as const;

/** Builds the whole shot. The same on every call. */
export function furnaceMouth(): ShotDocument {
  const newId = seededIds(1101);
  const { swatches, swatch } = swatchesFor(PALETTE, newId);
  const start = newShot(
    FURNACE_MOUTH_ID,
    { name: 'Furnace mouth', length: 72, background: '#0d0a09' },
    swatches,
    newId,
  );
  const wall = hearthMarks(
    {
      mortar: swatch('mortar'),
      bricks: [swatch('brick1'), swatch('brick2'), swatch('brick3'), swatch('brick4')],
      arch: swatch('arch'),
      archLit: swatch('arch2'),
      glow: [swatch('mouth'), swatch('mouth2'), swatch('mouth3'), swatch('mouth4')],
      anvil: swatch('anvil'),
      anvilTop: swatch('anvil2'),
    },
    newId,
  );
  const fire = addElementTo(start, 'Furnace fire', { x: 960, y: 884 }, newId);
  const walled = stillLayer(fire.doc, fire.elementId, 'Arch', wall, { x: -960, y: -884 }, newId);
  const laid = lay(
    walled,
    fire.elementId,
    'fire',
    { seed: 7, settings: { height: 500, width: 400, tongues: 5, anger: 42, sway: 40 }, length: 24, hold: 2 },
    newId,
  );
  // The axis runs up the fire: its foot is darker, and it lights the mouth round it.
  return finishedWith(
    setElement(laid, fire.elementId, { tip: { x: 0, y: -520 } }),
    {
      'Fire body': [
        {
          kind: 'inner glow',
          choices: { where: 'base' },
          swatch: swatch('line'),
          numbers: { strength: 70, reach: 26 },
        },
        { kind: 'glow', numbers: { radius: 46, strength: 30, radii: 3 } },
      ],
      'Fire line': [{ kind: 'line colour', numbers: { darker: 42 } }],
    },
    newId,
  );
}
