/** What those who receive frames need to know of them, in words, for a file beside the frames. */
import { shotOf, type ShotDocument } from '../document/index.ts';
import { EXPORT_FORMATS } from './exports/index.ts';
import { deliveredFrames, firstNumber, takenFrames, type ExportSettings, type Sequence } from './export-settings.ts';

const ALPHA_WORDS = {
  straight: 'straight: colours are not multiplied by alpha',
  premultiplied: 'premultiplied: colours are multiplied by alpha',
  matte: 'none in the files: they are mattes, the alpha in white on black',
} as const;

/** Where the files of a sequence lie in the picture, px from its upper left; null where they are as large as it. */
export type Lies = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
} | null;

/**
 * The notes.
 * @param settings as their format can be written.
 * @param size of the whole picture, px. @param sequences as they are written, frontmost first, with what each was cut to.
 */
export function exportNotes(
  doc: ShotDocument,
  settings: ExportSettings,
  size: { readonly width: number; readonly height: number },
  sequences: readonly (Sequence & { readonly cut: Lies })[],
): string {
  const shot = shotOf(doc);
  const { label, linear } = EXPORT_FORMATS[settings.format];
  const { from, to } = takenFrames(settings);
  const first = firstNumber(settings);
  const count = deliveredFrames(settings, shot.rate).length;
  const lines = [
    `${shot.name}${settings.pattern.includes('{version}') ? `, ${settings.version}` : ''}`,
    '',
    `Files: ${label}, ${size.width} x ${size.height} px, ${settings.rate ?? shot.rate} frames a second`,
    `Frames: ${from + 1} to ${to} of the shot, numbered ${first} to ${first + count - 1}`,
    ...(settings.rate === null
      ? []
      : [`Rate: the shot has ${shot.rate} frames a second; each file is the frame seen at its moment`]),
    ...(settings.before + settings.after > 0
      ? [`Handles: ${settings.before} before and ${settings.after} after what is meant to be seen`]
      : []),
    ...(settings.layers === 'all' ? [] : [`Layers: ${settings.layers === 'lines' ? 'lines only' : 'all but lines'}`]),
    ...(settings.crop
      ? [
          `Cropped: ${settings.crop.width} x ${settings.crop.height} px at ${settings.crop.left}, ${settings.crop.top} of the shot`,
        ]
      : []),
    `Colour: ${linear ? 'linear light, primaries of sRGB' : 'sRGB'}`,
    `Alpha: ${settings.background ? 'none, they lie on the background colour' : ALPHA_WORDS[settings.alpha]}`,
  ];
  if (sequences.length > 1) lines.push('', 'From the front to the back, each laid over those below it:');
  for (const { name, lies, cut } of sequences) {
    const where = cut ? `, cut to ${cut.width} x ${cut.height} px at ${cut.left}, ${cut.top} from the upper left` : '';
    if (sequences.length > 1 || cut) lines.push(`  ${name}: ${lies}${where}`);
  }
  return `${lines.join('\n')}\n`;
}
