/** Frames of a shot drawn onto a surface: background, plates, and sheets with their looks. */
import { finished, reachOf, type Part } from '../compose/index.ts';
import { shotOf, type Blend, type ShotDocument } from '../document/index.ts';
import { multiply, scaleOf, type Matrix } from '../geometry/index.ts';
import { drawPlates, type AssetPicture } from './plates.ts';
import { DIMMED, sheetsOf, type Look, type Sheet, type SheetOptions } from './sheets.ts';
import { wipe, type MakeSurface, type Picture, type Surface } from './surface.ts';

/** Gives the plain picture of a sheet's drawing at a view, on a surface of the given size. A cache may stand behind it. */
export type PictureOf = (sheet: Sheet, matrix: Matrix, width: number, height: number) => Picture;

/** What sheets are drawn with. */
export interface Means {
  readonly pictureOf: PictureOf;
  readonly make: MakeSurface;
  /** Keeps what looks come to, by everything they were worked out from; without it they are worked out each time. */
  readonly kept?: (sheet: Sheet, key: string, make: () => readonly Part[]) => readonly Part[];
  /** While something moves, looks are worked out coarser. */
  readonly rough?: boolean;
}

/**
 * Fills the shot's frame with its background, if it has one.
 * @param view from shot px to device pixels. @param instead a colour in its place, for judging.
 */
export function drawBackground(target: Surface, doc: ShotDocument, view: Matrix, instead: string | null = null): void {
  const { background, width, height } = shotOf(doc);
  const colour = instead ?? background;
  if (!colour) return;
  target.context.setTransform(...view);
  target.context.fillStyle = colour;
  target.context.fillRect(0, 0, width, height);
}

/** The canvas's own word for a blend. */
export const operationOf = (blend: Blend): string => (blend === 'normal' ? 'source-over' : blend);

/** Lays a picture of the target's size over what is there. */
export function layPicture(
  { context }: Surface,
  picture: Picture,
  opacity: number,
  blend: Blend,
  operation = operationOf(blend),
): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = opacity;
  context.globalCompositeOperation = operation;
  context.drawImage(picture, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** A picture of the target's size to be laid, with how it meets what is there. */
export interface ShownPart {
  readonly picture: Picture;
  readonly blend: Blend;
  readonly opacity: number;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

const EMPTY: Part[] = [];

/** Works looks out on a surface with room round it, so that what lies beyond its edge counts too. */
function looked(
  look: Look,
  matrix: Matrix,
  { width, height }: Size,
  { make, rough = false }: Means,
  draw: (on: Surface, matrix: Matrix, margin: number) => void,
  below: (margin: number) => Picture | null,
): Part[] {
  const margin = reachOf(look.finishes, scaleOf(matrix));
  const source = make(width + 2 * margin, height + 2 * margin);
  draw(source, multiply([1, 0, 0, 1, margin, margin], matrix), margin);
  const place = {
    matrix: multiply([1, 0, 0, 1, margin, margin], matrix),
    axis: look.axis,
    colourOf: look.colourOf,
    motion: look.motion,
    below: () => below(margin),
    rough,
    make,
  };
  const parts = finished(source, look.finishes, place);
  if (margin === 0) return parts;
  return parts.map((part) => {
    const cropped = make(width, height);
    cropped.context.drawImage(part.picture.picture, -margin, -margin);
    return { ...part, picture: cropped };
  });
}

/** The parts of a sheet as its looks make them, before it is cut to what it shows within. */
function partsOf(sheet: Sheet, view: Matrix, size: Size, means: Means, under: readonly Sheet[]): readonly ShownPart[] {
  const { pictureOf, make } = means;
  const matrix = multiply(view, sheet.matrix);
  const { look } = sheet;
  if (!look) return [{ picture: pictureOf(sheet, matrix, size.width, size.height), blend: 'normal', opacity: 1 }];
  const takesBelow = look.finishes.some(({ kind }) => kind === 'line colour');
  const fills = under.filter((each) => each.elementId === sheet.elementId);
  const work = (): Part[] =>
    looked(
      look,
      matrix,
      size,
      means,
      (on, placed) => {
        on.context.drawImage(pictureOf(sheet, placed, on.width, on.height), 0, 0);
      },
      (margin) => {
        const on = make(size.width + 2 * margin, size.height + 2 * margin);
        const wide = multiply([1, 0, 0, 1, margin, margin], view);
        for (const each of fills)
          layPicture(on, pictureOf(each, multiply(wide, each.matrix), on.width, on.height), each.opacity, each.blend);
        return on.picture;
      },
    );
  const key = JSON.stringify([look.finishes, look.axis, look.motion, matrix, size.width, size.height, means.rough]);
  const parts = takesBelow ? work() : (means.kept?.(sheet, key, work) ?? work());
  return parts.map(({ picture, blend, opacity }) => ({ picture: picture.picture, blend, opacity }));
}

/** What of a picture is seen: where the drawing it clips to is, and where no matte hides it. */
function cutTo(
  picture: Picture,
  sheet: Sheet,
  view: Matrix,
  { width, height }: Size,
  means: Means,
  clips: boolean,
): Picture {
  const { within, cuts } = sheet;
  if ((!within || !clips) && cuts.length === 0) return picture;
  const { pictureOf, make } = means;
  const cut = make(width, height);
  const { context } = cut;
  const plain = { ...sheet, within: null, cuts: [], look: null, tint: null };
  if (within && clips) {
    // The base first and the picture in it: pictures handed out one after another may be of one surface.
    const kept = make(width, height);
    kept.context.drawImage(picture, 0, 0);
    context.drawImage(pictureOf({ ...plain, ...within }, multiply(view, within.matrix), width, height), 0, 0);
    context.globalCompositeOperation = 'source-in';
    context.drawImage(kept.picture, 0, 0);
  } else {
    context.drawImage(picture, 0, 0);
  }
  for (const { layerId, drawing, matrix, inverted } of cuts) {
    context.globalCompositeOperation = inverted ? 'destination-in' : 'destination-out';
    context.drawImage(pictureOf({ ...plain, layerId, drawing, matrix }, multiply(view, matrix), width, height), 0, 0);
  }
  context.globalCompositeOperation = 'source-over';
  return cut.picture;
}

/** A sheet as it is seen, part by part: what is drawn first, its light after it, each with its own blend. */
export function shownParts(
  sheet: Sheet,
  view: Matrix,
  size: Size,
  means: Means,
  under: readonly Sheet[] = [],
): ShownPart[] {
  return partsOf(sheet, view, size, means, under).map((part, i) => ({
    // A picture handed out may be of a surface that is used again: it is cut before the next is asked for.
    picture: cutTo(part.picture, sheet, view, size, means, i === 0),
    blend: i === 0 ? sheet.blend : part.blend,
    opacity: sheet.opacity * part.opacity,
  }));
}

/** Sheets in runs that belong to one faded folder, or to none. */
export function inGroups<T extends Pick<Sheet, 'group'>>(sheets: readonly T[]): T[][] {
  return inRuns(sheets, (sheet) => sheet.group?.id);
}

function inRuns<T>(list: readonly T[], keyOf: (each: T) => unknown): T[][] {
  const runs: T[][] = [];
  for (const each of list) {
    const last = runs.at(-1);
    if (last && keyOf(last[0]!) === keyOf(each)) last.push(each);
    else runs.push([each]);
  }
  return runs;
}

function layOwn(target: Surface, sheets: readonly Sheet[], view: Matrix, means: Means, under: readonly Sheet[]): void {
  let below = [...under];
  for (const run of inGroups(sheets)) {
    const group = run[0]?.group;
    const on = group ? means.make(target.width, target.height) : target;
    for (const sheet of run) {
      for (const { picture, opacity, blend } of shownParts(sheet, view, on, means, below))
        layPicture(on, picture, opacity, blend);
      below = [...below, sheet];
    }
    if (group) layPicture(target, on.picture, group.opacity, 'normal');
  }
}

/** The parts an element with looks of its own comes to. @param sheets all of one element. */
export function wholeParts(sheets: readonly Sheet[], view: Matrix, size: Size, means: Means): readonly Part[] {
  const whole = sheets[0]?.whole;
  if (!whole) return EMPTY;
  const matrix = multiply(view, whole.matrix);
  return looked(
    whole,
    matrix,
    size,
    means,
    (on, _, margin) => {
      layOwn(on, sheets, multiply([1, 0, 0, 1, margin, margin], view), means, []);
    },
    () => null,
  );
}

/** Lays sheets on a surface in order; those of a faded folder, and those of an element with looks of its own, are put together first. */
export function laySheets(target: Surface, sheets: readonly Sheet[], view: Matrix, means: Means): void {
  let under: Sheet[] = [];
  for (const run of inRuns(sheets, (sheet) => (sheet.whole ? sheet.elementId : null))) {
    if (run[0]?.whole) {
      for (const { picture, blend, opacity } of wholeParts(run, view, target, means))
        layPicture(target, picture.picture, opacity, blend);
    } else {
      layOwn(target, run, view, means, under);
    }
    under = [...under, ...run];
  }
}

/** Draws a frame of the shot: background if asked for, then every drawing. */
export function drawFrame(
  target: Surface,
  doc: ShotDocument,
  shotFrame: number,
  view: Matrix,
  means: Means,
  options: SheetOptions & { background: boolean; backdrop?: string | null; assets?: AssetPicture },
): void {
  wipe(target);
  if (options.background) drawBackground(target, doc, view, options.backdrop);
  // A layer or an element taken by itself has no plates.
  if (options.assets && !options.alone && !options.element)
    drawPlates(target, doc, shotFrame, view, options.guides, options.assets, options.dimBut ? DIMMED : 1);
  laySheets(target, sheetsOf(doc, shotFrame, options), view, means);
}
