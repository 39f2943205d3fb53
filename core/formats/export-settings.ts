/** What is taken away and how: shared by the page that asks and the server that does it. */
import type { Blend } from '../canvas/index.ts';
import { entitiesOf, findAll, LAYER_ROLES, shotOf, type ShotDocument } from '../document/index.ts';

import { isVisible, placedElements, timedLayers, usedElements, nameOfUse } from '../timing/index.ts';
import type { DrawOptions } from '../render/index.ts';
import { EXPORT_FORMATS, type AlphaKind, type ExportFormatName } from './exports/index.ts';

/** One sequence of the whole picture, or one for each layer, use of an element, plane, or role of layers. */
export const EXPORT_PARTS = ['picture', 'layers', 'elements', 'planes', 'roles'] as const;
/** Which layers are in it: all, those of the role line alone, or all but those. */
export const EXPORT_LAYERS = ['all', 'lines', 'no lines'] as const;
/** Deliveries of one job at most. */
export const MAX_DELIVERIES = 8;
export const EXPORT_SCALE = { min: 0.1, max: 4 } as const;
/** Frames before and after the range at most, the highest number of a first frame, and digits of a number. */
export const EXPORT_LIMITS = { handle: 240, first: 99_999, padding: 8 } as const;

/** A part of the picture, px of the shot. */
export interface ExportCrop {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface ExportSettings {
  readonly format: ExportFormatName;
  readonly parts: (typeof EXPORT_PARTS)[number];
  /** Whether the shot's background colour is in it. */
  readonly background: boolean;
  /** First frame, from 0, and one past the last. */
  readonly from: number;
  readonly to: number;
  readonly scale: number;
  /** Frames a second of what is delivered; null for those of the shot. How long it lasts stays. */
  readonly rate: number | null;
  /** Frames taken before and after the range as well, to cut and fade in. */
  readonly before: number;
  readonly after: number;
  /** How files are named, with `{shot}`, `{part}`, `{version}` and `{frame}`. */
  readonly pattern: string;
  /** What stands for `{version}`. */
  readonly version: string;
  /** The number of the first file, or null for that of its frame in the shot; and its digits at least. */
  readonly first: number | null;
  readonly padding: number;
  /** How transparency is written. */
  readonly alpha: AlphaKind;
  /** Whether frames are cut to what is drawn in their sequence; where that lies is in the notes. */
  readonly trim: boolean;
  /** Whether a file of notes lies beside the frames: sizes, alpha, how parts are laid over one another. */
  readonly notes: boolean;
  /** Whether the exposure sheet lies beside the frames. */
  readonly sheet: boolean;
  /** Whether layers that are for work are in it. */
  readonly work: boolean;
  readonly layers: (typeof EXPORT_LAYERS)[number];
  /** What of the picture is taken; null for all of it. */
  readonly crop: ExportCrop | null;
  /** What the same job delivers besides, each with settings of its own; all lie in one zip then. */
  readonly also: readonly Omit<ExportSettings, 'also'>[];
}

export const DEFAULT_PATTERN = '{shot}-{frame}';

/** What is taken away unless something else is asked for. */
export const DEFAULT_EXPORT = {
  format: 'png',
  parts: 'picture',
  background: false,
  scale: 1,
  rate: null,
  before: 0,
  after: 0,
  pattern: DEFAULT_PATTERN,
  version: 'v01',
  first: null,
  padding: 4,
  alpha: 'straight',
  trim: false,
  notes: true,
  sheet: true,
  work: false,
  layers: 'all',
  crop: null,
  also: [],
} as const satisfies Omit<ExportSettings, 'from' | 'to'>;

/** Why a version cannot stand in a name, or null. */
export const versionProblem = (version: string): string | null =>
  /^[\p{Letter}\p{Number}._-]{1,20}$/u.test(version) ? null : 'must be 1 to 20 letters, digits, dots or dashes.';

/** The frames that are taken, with those before and after; they may lie beyond the ends of the shot. */
export const takenFrames = ({ from, to, before, after }: Pick<ExportSettings, 'from' | 'to' | 'before' | 'after'>) => ({
  from: from - before,
  to: to + after,
});

/**
 * The frames of the shot that are delivered, in order: at another rate those seen at its moments, so that some are left out or come
 * more than once and nothing is made up between two drawings.
 * @param shotRate frames a second of the shot.
 */
export function deliveredFrames(
  settings: Pick<ExportSettings, 'from' | 'to' | 'before' | 'after' | 'rate'>,
  shotRate: number,
): number[] {
  const { from, to } = takenFrames(settings);
  const rate = settings.rate ?? shotRate;
  const count = Math.max(1, Math.round(((to - from) * rate) / shotRate));
  return Array.from({ length: count }, (_, i) => Math.min(to - 1, from + Math.floor((i * shotRate) / rate)));
}

/** The number of the first file. */
export const firstNumber = ({ from, before, first }: Pick<ExportSettings, 'from' | 'before' | 'first'>): number =>
  first ?? Math.max(0, from - before + 1);

/** Says what is wrong with a pattern for names, or returns null. */
export function patternProblem(pattern: string): string | null {
  if (!pattern.includes('{frame}')) return 'must hold {frame}, or all frames would have one name.';
  const unknown = /\{(?!shot\}|part\}|version\}|frame\})[^}]*\}?/.exec(pattern)?.[0];
  if (unknown) return `holds ${unknown}, which is unknown. Use {shot}, {part}, {version} and {frame}.`;
  const bad = /[^\p{Letter}\p{Number}{}._ -]/u.exec(pattern)?.[0];
  if (bad) return `holds “${bad}”, which not every disk takes in a name.`;
  return pattern.length > 80 ? 'is longer than 80 characters.' : null;
}

const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)$/;

/** A name that every file system takes, made from what the user named. */
export function fileStem(name: string): string {
  const stem = name
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase()
    .slice(0, 60);
  // Names that Windows keeps for its devices.
  return RESERVED.test(stem) ? `${stem}-` : stem || 'shot';
}

/** The name of a file, without its ending. @param nth which of the sequence it is, from 0. */
export const frameName = (
  settings: Pick<ExportSettings, 'pattern' | 'version' | 'from' | 'before' | 'first' | 'padding'>,
  shot: string,
  part: string,
  nth: number,
): string =>
  settings.pattern
    .replaceAll('{shot}', shot)
    .replaceAll('{part}', part)
    .replaceAll('{version}', settings.version)
    .replaceAll('{frame}', String(firstNumber(settings) + nth).padStart(settings.padding, '0'));

/** One sequence of frames. */
export interface Sequence {
  /** Its folder's name, unique within the export. */
  readonly name: string;
  readonly options: DrawOptions;
  /** How it is laid over those that follow, in words. */
  readonly lies: string;
}

/** Settings as their format can be written: what was chosen for another one and cannot be here is left out. */
export function forFormat(settings: ExportSettings): ExportSettings {
  const { frames, whole, alphas, words, rates } = EXPORT_FORMATS[settings.format];
  const parts = whole ? 'picture' : settings.parts;
  return {
    ...settings,
    parts,
    trim: settings.trim && !whole,
    rate: rates ? settings.rate : null,
    ...(words ? { scale: 1, crop: null, layers: 'all' as const } : {}),
    // Handles are for cutting: a film or a loop is taken as it is to be seen.
    ...(frames === null ? { before: 0, after: 0 } : {}),
    alpha: alphas.includes(settings.alpha) ? settings.alpha : (alphas[0] ?? DEFAULT_EXPORT.alpha),
    // What cannot be seen through lies on a ground; parts never do.
    background: alphas.length === 0 || (settings.background && parts === 'picture'),
  };
}

/** The sequences of an export, frontmost first. Guides and hidden layers have none, nor have layers for work unless they are wanted. */
export function sequencesOf(
  doc: ShotDocument,
  settings: Pick<ExportSettings, 'parts' | 'work'> & Partial<Pick<ExportSettings, 'layers'>>,
): Sequence[] {
  const { without = [] } = pictureOptions(doc, settings);
  return allSequences(doc, settings)
    .filter(({ options }) => !options.alone || !without.includes(options.alone))
    .map((each) => ({ ...each, options: { ...each.options, without: [...(each.options.without ?? []), ...without] } }));
}

/** What of the shot is in the picture as a whole. */
export function pictureOptions(
  doc: ShotDocument,
  { work, layers = 'all' }: Pick<ExportSettings, 'work'> & Partial<Pick<ExportSettings, 'layers'>>,
): DrawOptions {
  const left = entitiesOf(doc, 'layer').filter(
    ({ role }) => layers !== 'all' && (role === 'line') !== (layers === 'lines'),
  );
  return { guides: false, forWork: work, without: left.map(({ id }) => id) };
}

/** The deliveries of a job, each as if it were the only one. */
export const deliveriesOf = (settings: ExportSettings): ExportSettings[] => [
  { ...settings, also: [] },
  ...settings.also.map((each) => ({ ...each, also: [] })),
];

/** What a delivery is called: its folder in a job of several. @param nth from 0. */
export function deliveryName({ format, layers, parts, crop, scale, rate }: ExportSettings, nth: number): string {
  const words = [
    format.toLowerCase(),
    ...(parts === 'picture' ? [] : [parts]),
    ...(layers === 'all' ? [] : [layers.replace(' ', '-')]),
    ...(crop ? [`${crop.width}x${crop.height}`] : []),
    ...(scale === 1 ? [] : [`${Math.round(scale * 100)}pc`]),
    ...(rate === null ? [] : [`${rate}fps`]),
  ];
  return `${String(nth + 1).padStart(2, '0')}-${words.join('-')}`;
}

function allSequences(doc: ShotDocument, settings: Pick<ExportSettings, 'parts' | 'work'>): Sequence[] {
  const { parts } = settings;
  const forWork = settings.work;
  const stem = fileStem(shotOf(doc).name);
  if (parts === 'picture') return [{ name: stem, options: { guides: false, forWork }, lies: OVER }];
  const taken = new Set<string>();
  const unique = (name: string): string => {
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name}-${n}`;
    taken.add(free);
    return free;
  };
  if (parts === 'planes')
    return findAll(doc, 'plane', shotOf(doc).planes).map(({ id, name }) => ({
      name: unique(fileStem(name)),
      options: { guides: false, forWork, plane: id },
      lies: OVER,
    }));
  // Each use by itself: one element may be seen in many places.
  if (parts === 'elements')
    return placedElements(doc).map(({ placement }): Sequence => {
      const name = unique(fileStem(nameOfUse(doc, placement)));
      return { name, options: { guides: false, forWork, place: placement.id }, lies: OVER };
    });
  const elements = usedElements(doc);
  const layers = elements.flatMap((element) =>
    timedLayers(doc, element)
      .filter((timed) => isVisible(timed) && timed.layer.role !== 'guide' && (forWork || !timed.layer.forWork))
      .map(({ layer }) => ({ element, layer })),
  );
  if (parts === 'roles')
    return LAYER_ROLES.flatMap((role): Sequence[] => {
      const others = layers.filter(({ layer }) => layer.role !== role).map(({ layer }) => layer.id);
      if (others.length === layers.length) return [];
      return [{ name: unique(role), options: { guides: false, forWork, without: others }, lies: OVER }];
    });
  return layers.map(({ element, layer }) => ({
    name: unique(`${elements.length > 1 ? `${fileStem(element.name)}-` : ''}${fileStem(layer.name)}`),
    options: { guides: false, alone: layer.id },
    lies: layer.blend === 'normal' ? OVER : `with ${BLEND_WORDS[layer.blend] ?? layer.blend}`,
  }));
}

/** As most things lie. */
const OVER = 'over';
/** Blends as other programs call them. */
const BLEND_WORDS: Readonly<Partial<Record<Blend, string>>> = { lighter: 'add' };

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
