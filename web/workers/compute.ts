/** The compute worker: starters, in-betweens, fills and tone away from the main thread, drawing by drawing, so that it can be stopped between two. */
import { computeBetweens, type BetweenWork } from '@tallow/core/between';
import { makeGrounds, takeGrounds, type Grounds } from '@tallow/core/brush';
import { bestJoins, seamReport, type Cover, type Join, type SeamReport } from '@tallow/core/checks';
import {
  documentOf,
  randomId,
  type Drawing,
  type Element,
  type FilledRegion,
  type Path,
  type Starter,
  type ToneKey,
} from '@tallow/core/document';
import { fitInto, seededIds, type Matrix, type Point } from '@tallow/core/geometry';
import {
  drawDrawing,
  FillWorker,
  Scratch,
  type FillThere,
  type FillWork,
  type FilledThrough,
} from '@tallow/core/render';
import { type Settings } from '@tallow/core/controls';
import {
  drawingOf,
  fitted,
  laidBox,
  marksFrom,
  readable,
  sceneFor,
  sceneOf,
  starterOf,
  type StandingGround,
  type LaidFrame,
  type Preset,
  type Scene,
  type StarterKind,
} from '@tallow/core/starters';
import { toneShapes, type FilledShape, type ToneWork } from '@tallow/core/paint';
import {
  arrivedAs,
  computeSmear,
  judged,
  volumesOf,
  wayShown,
  type DrawingRow,
  type Judged,
  type Smeared,
  type SmearWork,
} from '@tallow/core/smears';
import { expose, transfer } from 'comlink';
import { brushMarkPicture, type BrushMarkRequest } from './brush-mark-picture.ts';
import { scanDrawing, scanReference } from './scan-work.ts';
import { makeSurface } from './surfaces.ts';

/** A starter with what it works from. */
export interface StarterWork {
  readonly starter: Starter;
  readonly element: Element;
  readonly path: Path | null;
}

const sceneFrom = ({ starter, element, path }: StarterWork): Scene =>
  sceneOf(documentOf('', [element, starter, ...(path ? [path] : [])]), starter);

/** Draws one laid drawing, lowest output first. Outputs laid hidden are left out. */
function painted(
  kind: StarterKind,
  frame: LaidFrame,
  at: { x: number; y: number },
  colours: Readonly<Record<string, string>>,
  size: { width: number; height: number },
  matrix: Matrix,
): ImageBitmap {
  const shown = kind.outputs.filter((output) => !output.hidden && !output.blend).reverse();
  const marks = marksFrom(
    shown.flatMap((output) => frame[output.key] ?? []),
    (paint) => paint,
    at,
    seededIds(1),
  );
  const surface = makeSurface(size.width, size.height);
  const scratch = new Scratch(makeSurface);
  const preset = (paint: string) => kind.paints.find((p) => p.key === paint)?.colour ?? '#808080';
  drawDrawing(surface, scratch, drawingOf('', marks), (paint) => colours[paint] ?? preset(paint), matrix);
  const bitmap = (surface.picture as OffscreenCanvas).transferToImageBitmap();
  return transfer(bitmap, [bitmap]);
}

/** What of a drawing is seen when it has just been laid. */
const seenOf = (frame: LaidFrame, kind: StarterKind) =>
  kind.outputs.flatMap(({ key, hidden, blend }) => (hidden || blend ? [] : (frame[key] ?? [])));

/** Drawings a cycle keeps at least when it is cut. */
const MIN = 4;

let laying = 0;
let filling = 0;
let toning = 0;
let smearing = 0;
const fills = new FillWorker(makeSurface);

const compute = {
  /** What brushes are drawn on. */
  grounds(): Grounds {
    const grounds = makeGrounds();
    takeGrounds(grounds);
    return grounds;
  },

  scanReference,
  scanDrawing,

  /** The mark of a brush, small. */
  brushMark(request: BrushMarkRequest): ImageBitmap {
    const picture = brushMarkPicture(request);
    return transfer(picture, [picture]);
  },

  /**
   * Lays every drawing.
   * @param onStep told how many are done. @returns null when stopped or overtaken by a later call.
   */
  async lay(work: StarterWork, onStep: (done: number, of: number) => Promise<void>): Promise<LaidFrame[] | null> {
    laying += 1;
    const own = laying;
    const kind = starterOf(work.starter.effect);
    const scene = sceneFrom(work);
    const frames: LaidFrame[] = [];
    for (let i = 0; i < scene.starts.length; i++) {
      frames.push(kind.draw(scene, i));
      // Between two drawings what was posted meanwhile is heard: a stop, or the next laying.
      await onStep(i + 1, scene.starts.length);
      if (own !== laying) return null;
    }
    return readable(kind, frames, scene.cycle);
  },

  /** Settings with which a starter fits into the picture from where it stands. @param asked whether the pen put it there. */
  fitted: (work: StarterWork, ground: StandingGround, asked: boolean): Settings => {
    const { starter } = work;
    const sceneWith = (settings: Settings) => sceneFrom({ ...work, starter: { ...starter, settings } });
    return fitted(starterOf(starter.effect), starter.settings, ground, starter, asked, sceneWith);
  },

  /** In-betweens, one for each share. */
  between: (work: BetweenWork): Pick<Drawing, 'marks' | 'order'>[] => computeBetweens(work, randomId),

  smear: (work: SmearWork): Smeared => computeSmear(work, randomId),

  /** The way of a smear, and how fast its subject goes. */
  smearWay: (work: SmearWork): { way: Point[]; speed: Judged } => ({ way: wayShown(work), speed: judged(work) }),

  /** The arriving drawing squashed or drawn out along its way. @param long of its length. */
  arrived: (work: SmearWork, long: number) => arrivedAs(work, long, randomId),

  volumes: (row: DrawingRow, round: boolean) => volumesOf(row, round),

  /** How fast subjects go, each in its last step. */
  speeds: (works: readonly SmearWork[]): Judged[] => works.map(judged),

  /** Several smears. @param onStep told how many are done. @returns null when stopped or overtaken. */
  async smears(
    works: readonly SmearWork[],
    onStep: (done: number, of: number) => Promise<void>,
  ): Promise<Smeared[] | null> {
    smearing += 1;
    const own = smearing;
    const made: Smeared[] = [];
    for (const work of works) {
      made.push(computeSmear(work, randomId));
      await onStep(made.length, works.length);
      if (own !== smearing) return null;
    }
    return made;
  },

  /** The seam of a cycle against its other steps, and where it would best be cut within a range of drawings. */
  seam: (
    covers: readonly Cover[],
    cell: number,
    range: readonly [number, number],
  ): { report: SeamReport; joins: Join[] } => ({
    report: seamReport(covers, cell),
    joins: bestJoins(covers, cell, Math.min(MIN, range[1] - range[0] + 1), 3, range),
  }),

  /** Stops what is being laid. */
  stop(): void {
    laying += 1;
    filling += 1;
    toning += 1;
    smearing += 1;
  },

  fillReady: (key: string, work: FillWork): boolean => fills.ready(key, work),
  fillAt: (key: string, at: Point): FillThere => fills.at(key, at),
  fillMany: (key: string, which: 'all' | 'silhouette' | 'lasso', lasso: readonly Point[]): FilledShape[] =>
    fills.many(key, which, lasso),
  fillClosed: (before: string, now: string): FilledShape[] => fills.closed(before, now),
  fillAgain: (work: FillWork, regions: readonly FilledRegion[]): (FilledShape | null)[] => fills.again(work, regions),

  /** Tone of several drawings, one after the other. @param onStep told how many are done. @returns null when overtaken. */
  async tone(
    works: readonly ToneWork[],
    onStep: (done: number, of: number) => Promise<void>,
  ): Promise<Partial<Record<ToneKey, Float32Array[]>>[] | null> {
    toning += 1;
    const own = toning;
    const cut: Partial<Record<ToneKey, Float32Array[]>>[] = [];
    for (const work of works) {
      cut.push(toneShapes(work));
      await onStep(cut.length, works.length);
      if (own !== toning) return null;
    }
    return cut;
  },

  /**
   * Carries fills through drawings. @param max the widest gap that may be closed where it is needed, px.
   * @param onStep told how many are done. @returns null when stopped.
   */
  async fillThrough(
    works: readonly FillWork[],
    painted: readonly { seed: Point; swatch: string }[],
    max: number,
    onStep: (done: number, of: number) => Promise<void>,
  ): Promise<FilledThrough[] | null> {
    filling += 1;
    const own = filling;
    return fills.through(works, painted, max, async (done, of) => {
      await onStep(done, of);
      return own === filling;
    });
  },

  /** The gap that each drawing but the first needs for the fills of the first to hold, null where none to `max` does. */
  async fillNeeds(
    works: readonly FillWork[],
    painted: readonly { seed: Point; swatch: string }[],
    max: number,
    onStep: (done: number, of: number) => Promise<void>,
  ): Promise<(number | null)[] | null> {
    const results = await compute.fillThrough(works, painted, max, onStep);
    const leaks = ({ reports }: FilledThrough) => reports.some(({ trouble }) => trouble === 'leaked');
    return results && results.map((each) => (leaks(each) ? null : each.gap));
  },

  /** The drawing that shows on a frame of the element, on a surface of the given size. */
  preview(
    work: StarterWork,
    frame: number,
    colours: Readonly<Record<string, string>>,
    size: { width: number; height: number },
    matrix: Matrix,
  ): ImageBitmap {
    const kind = starterOf(work.starter.effect);
    const scene = sceneFrom(work);
    const local = frame - work.starter.from;
    const after = scene.starts.findIndex((start) => start > local);
    const index = Math.max(0, (after < 0 ? scene.starts.length : after) - 1);
    return painted(kind, kind.draw(scene, index), work.starter, colours, size, matrix);
  },

  /** A small picture of what a preset lays, from the middle of its time. */
  picture(effect: StarterKind['effect'], preset: Preset, width: number, height: number): ImageBitmap {
    const kind = starterOf(effect);
    const scene = sceneFor(kind, preset, 7);
    const index = Math.floor((kind.telling ?? 0.5) * scene.starts.length);
    const frame = kind.draw(scene, index);
    const box = laidBox(seenOf(frame, kind));
    const fits = box.left < box.right ? fitInto(box, width - 4, height - 4) : ([1, 0, 0, 1, 0, 0] as const);
    const matrix: Matrix = [fits[0], 0, 0, fits[3], fits[4] + 2, fits[5] + 2];
    return painted(kind, frame, { x: 0, y: 0 }, {}, { width, height }, matrix);
  },
};

export type Compute = typeof compute;
expose(compute);
