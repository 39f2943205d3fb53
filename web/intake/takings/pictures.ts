/** Pictures as plates. */
import { bringFilm, bringLayers, bringSequence, bringZip, isPicture, isZip } from '../../references/references.ts';
import { isFootage } from '../../references/footage.ts';
import { isOpenRaster } from '../../references/open-raster.ts';
import type { Taking } from '../taking.ts';

const arePictures = (files: readonly File[]): boolean => files.every(({ name }) => isPicture(name));

export const sequence: Taking = {
  label: 'A plate, a picture a frame',
  says: 'Numbered pictures, in the order of their numbers.',
  fits: (files) => files.length > 1 && arePictures(files),
  bring: bringSequence,
};

export const stills: Taking = {
  label: 'A plate each',
  says: 'Every picture by itself.',
  fits: (files) => files.length > 1 && arePictures(files),
  bring: async (files, signal, tell) => {
    for (const [i, file] of files.entries()) {
      await bringSequence([file], signal);
      tell(i + 1, files.length);
    }
  },
};

export const still: Taking = {
  label: 'A plate',
  says: 'A picture to draw over, or part of the shot.',
  fits: (files) => files.length === 1 && arePictures(files),
  bring: bringSequence,
};

export const zipped: Taking = {
  label: 'A plate, a picture a frame',
  says: 'The numbered pictures in it.',
  fits: (files) => files.length === 1 && isZip(files[0]),
  bring: ([file], signal) => bringZip(file, signal),
};

export const rasterLayers: Taking = {
  label: 'A plate for each layer',
  says: 'As they lie in it.',
  fits: (files) => files.length === 1 && isOpenRaster(files[0]),
  bring: ([file], signal) => bringLayers(file, signal),
};

export const filmTaking: Taking = {
  label: 'A plate that moves',
  says: 'Its frames, at the rate of the shot.',
  fits: (files) => files.length === 1 && isFootage(files[0]),
  bring: ([file], signal) => bringFilm(file, signal),
};
