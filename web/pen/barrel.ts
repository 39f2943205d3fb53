/** What the button on the pen's barrel does: the user chooses one. */
import type { Matrix } from '@tallow/core/geometry';
import type { PenSample } from '../hand/pen-doing.ts';
import { flip, unflip } from '../playback/playhead.ts';
import { say } from '../shot/document.ts';
import { holdSmear, endSmearDrag } from '../smears/dragging.ts';
import { swatchUnder } from '../swatches/under.ts';
import { takeSwatch } from '../swatches/swatches.ts';

interface BarrelDeed {
  readonly label: string;
  readonly does: string;
  /** What the pen moves while the button is held. */
  readonly moves?: 'pan' | 'turn' | 'width';
  /** What begins with the button and ends with it. */
  readonly holds?: { readonly run: () => void; readonly release: () => void };
  /** What it does where the pen is. @param inward CSS px of the canvas to the active layer's space. */
  readonly at?: (inward: Matrix, where: PenSample) => void;
}

function takeUnder(inward: Matrix, where: PenSample): void {
  const swatch = swatchUnder(inward, where);
  if (swatch) takeSwatch(swatch);
  else say('No mark of this element lies here.');
}

const flips = (by: 1 | -1) => ({
  run: () => {
    flip(by);
  },
  release: unflip,
});

export const BARREL = {
  colour: { label: 'Pick a colour', does: 'Takes the swatch of the mark under the pen', at: takeUnder },
  flipBefore: { label: 'Flip before', does: 'Shows the drawing before for as long as it is held', holds: flips(-1) },
  flipAfter: { label: 'Flip after', does: 'Shows the drawing after for as long as it is held', holds: flips(1) },
  pan: { label: 'Move the picture', does: 'The picture goes with the pen', moves: 'pan' },
  turn: { label: 'Turn the picture', does: 'The picture turns with the pen', moves: 'turn' },
  smear: {
    label: 'Smear',
    does: 'Held and moved: smears to this drawing, sideways how much, up and down its bend',
    holds: { run: () => void holdSmear({}), release: endSmearDrag },
  },
  width: { label: 'Width', does: 'Drag sideways for the width of the brush', moves: 'width' },
} as const satisfies Readonly<Record<string, BarrelDeed>>;

type BarrelName = keyof typeof BARREL;
export const BARREL_NAMES = Object.keys(BARREL) as readonly BarrelName[];

/** What a choice does; one remembered from another version that is not known is the first. */
export const barrelDeed = (name: string): BarrelDeed =>
  (BARREL as Readonly<Record<string, BarrelDeed>>)[name] ?? BARREL.colour;
