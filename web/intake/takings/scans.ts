/** Scanned pencil drawings on a rough layer. */
import { isPicture } from '../../references/references.ts';
import { bringScans } from '../scans.ts';
import { called, type Taking } from '../taking.ts';

export const scans: Taking = {
  label: 'Scanned drawings',
  says: 'A drawing each on a rough layer, the paper taken out.',
  fits: (files) => files.every(({ name }) => isPicture(name)) && !files.some((file) => called([file], 'svg', 'gif')),
  bring: bringScans,
};
