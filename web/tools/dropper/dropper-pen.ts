/** The pen that takes colours from the picture: with Shift the swatch of the mark under it, else its colour for the active swatch. */
import { setSwatch } from '@tallow/core/edit';
import { apply, multiply, type Matrix } from '@tallow/core/geometry';
import { current, layerMatrix, shotFrameOf } from '../../selection/current.ts';
import { selection } from '../../selection/selection.ts';
import { edit, say } from '../../shot/document.ts';
import { swatchNow, takeSwatch, useColours, noteColour } from '../../swatches/swatches.ts';
import { painter } from '../../workers/painter-client.ts';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { takeTool } from '../../hand/tool-state.ts';
import { swatchUnder } from '../../swatches/under.ts';

/** Begins where the pen lands. @param inward CSS px of the canvas to the active layer's space. */
export function beginDropper(inward: Matrix, first: PenSample): PenDoing | null {
  const now = current();
  if (!now) return null;
  if (first.shift) {
    const swatch = swatchUnder(inward, first);
    if (swatch) takeSwatch(swatch);
    else say('No mark of this element lies here.');
    takeTool(null);
    return null;
  }
  const swatch = swatchNow();
  if (!swatch) {
    say('Take a swatch first: the colour goes into it.');
    return null;
  }
  const { frame, turn } = selection();
  const shotFrame = shotFrameOf(now, frame, turn);
  const toShot = multiply(layerMatrix(now, frame), inward);
  let last = first;
  let asked = 0;
  const look = async (sample: PenSample): Promise<string | null> => {
    asked += 1;
    const own = asked;
    const colour = await painter().colourAt(apply(toShot, sample), shotFrame);
    if (own === asked) useColours.setState({ under: colour });
    return colour;
  };
  void look(first);
  return {
    move: (samples) => {
      last = samples.at(-1)!;
      void look(last);
    },
    up: () => {
      void look(last).then((colour) => {
        useColours.setState({ under: null });
        if (!colour) {
          say('There is nothing here to take a colour from.');
          return;
        }
        noteColour(colour);
        edit('swatch colour', (doc) => setSwatch(doc, swatch.id, { colour, gradient: null }));
        takeTool(null);
      });
      return true;
    },
    drop: () => {
      useColours.setState({ under: null });
    },
  };
}
