/** What is neither picture nor marks: sounds, palettes, exposure sheets, archives. */
import { find, randomId } from '@tallow/core/document';
import { writeSheet } from '@tallow/core/edit';
import { readSheet } from '@tallow/core/formats';
import { cameText, followedArchive, handIn } from '../../api/archives.ts';
import { bringOneSound, isZip } from '../../references/references.ts';
import { current } from '../../selection/current.ts';
import { edit, say, useDocument } from '../../shot/document.ts';
import { isSound, stopSound } from '../../sound/bring.ts';
import { bringFromFile } from '../../swatches/swatches.ts';
import { called, type Taking } from '../taking.ts';

const one = (files: readonly File[]): boolean => files.length === 1;

export const soundTaking: Taking = {
  label: 'A sound',
  says: 'Heard from the playhead on.',
  fits: (files) => one(files) && isSound(files[0]),
  bring: ([file], signal) => {
    signal.addEventListener('abort', stopSound, { once: true });
    return bringOneSound(file);
  },
};

export const paletteTaking: Taking = {
  label: 'Swatches',
  says: 'Added to the palette of the shot.',
  fits: (files) => one(files) && called(files, 'txt', 'css'),
  bring: ([file]) => bringFromFile(file),
};

const LARGEST = 2 * 1024 * 1024;

export const sheet: Taking = {
  label: 'An exposure sheet',
  says: 'Written onto the layer in hand: which drawing on which frame.',
  fits: (files) => one(files) && called(files, 'csv', 'tsv', 'txt'),
  bring: async ([file]) => {
    if (file.size > LARGEST) throw new Error(`${file.name} is larger than any sheet.`);
    const read = readSheet(await file.text());
    if ('problem' in read) throw new Error(`${file.name}: ${read.problem}`);
    const { doc } = useDocument.getState();
    const layer = doc && find(doc, 'layer', current()?.active?.layer.id);
    if (!layer) throw new Error('There is no layer in hand to write it on.');
    if (layer.locked) throw new Error(`“${layer.name}” is locked: unlock it first.`);
    const { columns } = read.ok;
    // A column of the layer's name, after whatever it lies in; else the only one there is.
    const column =
      columns.find(({ name }) => name === layer.name || name.endsWith(`/ ${layer.name}`)) ??
      (columns.length === 1 ? columns[0] : undefined);
    if (!column)
      throw new Error(
        `No column of ${file.name} is named “${layer.name}”. There are: ${columns.map(({ name }) => name).join(', ')}.`,
      );
    edit('write a sheet', (now) => writeSheet(now, layer.id, column.numbers, randomId));
    say(`“${layer.name}” goes by ${file.name}: ${column.numbers.length} frames.`);
  },
};

export const archive: Taking = {
  label: 'An archive',
  says: 'Its shots come in beside this one.',
  fits: (files) => one(files) && isZip(files[0]),
  bring: async ([file], signal, tell) => {
    const { id } = await handIn(file, signal);
    say(`${cameText(await followedArchive(id, signal, tell))} They stand on the page of shots.`);
  },
};
