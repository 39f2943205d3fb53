/** What is taken away and how: shared by the page that asks and the server that does it. */
import { shotOf, type ShotDocument } from '../document/index.ts';

import { isVisible, placedElements, timedLayers, usedElements } from '../timing/index.ts';
import type { SheetOptions } from '../render/index.ts';
import { EXPORT_FORMATS, type ExportFormatName } from './exports/index.ts';

/** One sequence of the whole picture, or one for each layer, or one for each element. */
export const EXPORT_PARTS = ['picture', 'layers', 'elements'] as const;
export const EXPORT_SCALE = { least: 0.1, most: 4 } as const;

export interface ExportSettings {
  readonly format: ExportFormatName;
  readonly parts: (typeof EXPORT_PARTS)[number];
  /** Whether the shot's background colour is in it. */
  readonly background: boolean;
  /** First frame, from 0, and one past the last. */
  readonly from: number;
  readonly to: number;
  readonly scale: number;
  /** How files are named, with `{shot}`, `{part}` and `{frame}`. */
  readonly pattern: string;
  /** Whether the exposure sheet lies beside the frames. */
  readonly sheet: boolean;
  /** Whether layers that are for work are in it. */
  readonly work: boolean;
}

export const USUAL_PATTERN = '{shot}-{frame}';

/** Says what is wrong with a pattern for names, or returns null. */
export function patternProblem(pattern: string): string | null {
  if (!pattern.includes('{frame}')) return 'must hold {frame}, or all frames would have one name.';
  const unknown = /\{(?!shot\}|part\}|frame\})[^}]*\}?/.exec(pattern)?.[0];
  if (unknown) return `holds ${unknown}, which is unknown. Use {shot}, {part} and {frame}.`;
  const bad = /[^\p{Letter}\p{Number}{}._ -]/u.exec(pattern)?.[0];
  if (bad) return `holds “${bad}”, which not every disk takes in a name.`;
  return pattern.length > 80 ? 'is longer than 80 characters.' : null;
}

/** Frame 0 is `0001`; five digits and more only where they are needed. */
export const frameNumber = (frame: number): string => String(frame + 1).padStart(4, '0');

/** A name that every file system takes, made from what the user named. */
export function fileStem(name: string): string {
  const stem = name
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return stem || 'shot';
}

/** The name of a frame's file, without its ending. */
export const frameName = (pattern: string, shot: string, part: string, frame: number): string =>
  pattern.replaceAll('{shot}', shot).replaceAll('{part}', part).replaceAll('{frame}', frameNumber(frame));

/** One sequence of frames. */
export interface Sequence {
  /** Its folder's name, unique within the export. */
  readonly name: string;
  readonly options: SheetOptions;
}

/** What it is parted into: one file holds the whole picture, whatever was chosen for frames. */
export const partsOf = ({ format, parts }: Pick<ExportSettings, 'format' | 'parts'>): ExportSettings['parts'] =>
  EXPORT_FORMATS[format].frames === null ? 'picture' : parts;

/** The sequences of an export, frontmost first. Guides and hidden layers have none, nor have layers for work unless they are wanted. */
export function sequencesOf(
  doc: ShotDocument,
  settings: Pick<ExportSettings, 'format' | 'parts' | 'work'>,
): Sequence[] {
  const parts = partsOf(settings);
  const forWork = settings.work;
  const stem = fileStem(shotOf(doc).name);
  if (parts === 'picture') return [{ name: stem, options: { guides: false, forWork } }];
  const taken = new Set<string>();
  const unique = (name: string): string => {
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name}-${n}`;
    taken.add(free);
    return free;
  };
  // Each use by itself: one element may be seen in many places.
  if (parts === 'elements')
    return placedElements(doc).map(({ element, placement }): Sequence => {
      const name = unique(fileStem(placement.name ?? element.name));
      return { name, options: { guides: false, forWork, place: placement.id } };
    });
  const elements = usedElements(doc);
  return elements.flatMap((element): Sequence[] => {
    return timedLayers(doc, element)
      .filter((timed) => isVisible(timed) && timed.layer.role !== 'guide' && (forWork || !timed.layer.forWork))
      .map(({ layer }) => ({
        name: unique(`${elements.length > 1 ? `${fileStem(element.name)}-` : ''}${fileStem(layer.name)}`),
        options: { guides: false, alone: layer.id },
      }));
  });
}

/** Layers that are seen while drawing and not taken away, frontmost first. */
export const leftOut = (doc: ShotDocument): { readonly name: string; readonly why: 'guide' | 'for work' }[] =>
  usedElements(doc).flatMap((element) =>
    timedLayers(doc, element)
      .filter((timed) => isVisible(timed) && (timed.layer.role === 'guide' || timed.layer.forWork))
      .map(({ layer }) => ({ name: layer.name, why: layer.role === 'guide' ? 'guide' : 'for work' })),
  );

/** Names of visible layers whose blend depends on what lies under the whole picture. */
export const brighteningLayers = (doc: ShotDocument): string[] =>
  usedElements(doc).flatMap((element) =>
    timedLayers(doc, element)
      .filter((timed) => isVisible(timed) && timed.layer.role !== 'guide' && timed.layer.blend !== 'normal')
      .map(({ layer }) => layer.name),
  );
