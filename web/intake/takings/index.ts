/** Everything that files can be taken for. Of several that fit, the first is what most mean. A new one is a file beside these and a line here. */
import type { Taking } from '../taking.ts';
import { moving } from './moving.ts';
import { archive, paletteTaking, sheet, soundTaking } from './others.ts';
import { filmTaking, rasterLayers, sequence, still, stills, zipped } from './pictures.ts';
import { scans } from './scans.ts';
import { svgMarks } from './svg-marks.ts';

export const TAKINGS = {
  svgMarks,
  moving,
  sequence,
  stills,
  still,
  scans,
  film: filmTaking,
  rasterLayers,
  zipped,
  archive,
  sound: soundTaking,
  palette: paletteTaking,
  sheet,
} as const satisfies Record<string, Taking>;

export type TakingName = keyof typeof TAKINGS;
export const takings = (): TakingName[] => Object.keys(TAKINGS) as TakingName[];
