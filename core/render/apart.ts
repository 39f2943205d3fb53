/** Items of the picture kept apart for the stroke under the pen: what lies above it, and where it is seen at all. */
import { find, type Blend, type Id, type Layer, type ShotDocument } from '../document/index.ts';
import type { MakeSurface, Surface } from '../canvas/index.ts';
import { multiply, type Matrix } from '../geometry/index.ts';
import { timedLayers } from '../timing/index.ts';
import { inGroups, layDrawList } from './lay-draw-list.ts';
import { layPart, layPicture, putPlaced } from './lay.ts';
import { shownParts } from './item-parts.ts';
import type { RenderContext, Placed, ShownPart } from './render-context.ts';
import type { DrawItem, DrawOptions } from './draw-item.ts';
import { drawListOf } from './draw-list.ts';
import { layerRanks, type Rank } from './use-draw-list.ts';

/** A surface that is laid over others with a blend. */
export interface LaidSurface {
  readonly surface: Surface;
  readonly blend: Blend;
  readonly opacity: number;
}

/** Surfaces that parts are laid on, as few as their blends allow. */
class Sheets {
  private readonly laid: LaidSurface[] = [];
  private open: Surface | null = null;

  constructor(
    private readonly size: readonly [number, number],
    private readonly make: MakeSurface,
  ) {}

  /** The surface that is plainly laid on now. */
  get plain(): Surface {
    this.open ??= this.make(...this.size);
    return this.open;
  }

  put(part: ShownPart): void {
    if (part.blend === 'normal') {
      layPart(this.plain, part);
      return;
    }
    this.close();
    const apart = this.make(...this.size);
    putPlaced(apart, part);
    this.laid.push({ surface: apart, blend: part.blend, opacity: part.opacity });
  }

  private close(): void {
    if (this.open) this.laid.push({ surface: this.open, blend: 'normal', opacity: 1 });
    this.open = null;
  }

  done(): LaidSurface[] {
    this.close();
    return this.laid;
  }
}

/** Parts as few surfaces as their blends allow, lowest first. */
export function partsApart(
  parts: readonly ShownPart[],
  size: readonly [number, number],
  make: MakeSurface,
): LaidSurface[] {
  const sheets = new Sheets(size, make);
  for (const part of parts) sheets.put(part);
  return sheets.done();
}

/** Items as few surfaces as their blends allow, lowest first. @param onTop pictures laid over all of them. */
export function laidApart(
  items: readonly DrawItem[],
  size: readonly [number, number],
  view: Matrix,
  by: RenderContext,
  under: readonly DrawItem[],
  onTop: readonly Placed[] = [],
): LaidSurface[] {
  const sheets = new Sheets(size, by.make);
  let below = [...under];
  const [width, height] = size;
  for (const run of inGroups(items)) {
    if (run[0]!.group || run[0]!.wholes.length > 0) {
      layDrawList(sheets.plain, run, view, by);
      continue;
    }
    for (const item of run) {
      for (const part of shownParts(item, view, { width, height }, by, below)) sheets.put(part);
      below = [...below, item];
    }
  }
  for (const each of onTop) putPlaced(sheets.plain, each);
  return sheets.done();
}

/** Where what is drawn on the active layer is seen: within what it clips to, and where no matte hides it. Null is everywhere. */
export function maskOf(
  doc: ShotDocument,
  rendering: RenderContext,
  shotFrame: number,
  layerId: Id | null,
  place: string | null,
  options: DrawOptions,
  own: DrawItem | undefined,
  [width, height]: readonly [number, number],
  view: Matrix,
): Surface | null {
  const layer = find(doc, 'layer', layerId);
  const clips = layer?.clip === true && !options.alone;
  const ranks = layerRanks(doc, shotFrame);
  const rankOf = (rank: Rank): number =>
    ranks.findIndex((each) => each.place === rank.place && each.layerId === rank.layerId);
  const rank = rankOf({ place: place ?? '', layerId: layerId ?? '' });
  const cuts = own?.cuts.filter((cut) => rankOf(cut) > rank) ?? [];
  if (!layer || (!clips && cuts.length === 0)) return null;
  const mask = rendering.make(width, height);
  const within = clips ? clipBase(doc, shotFrame, layer, place, options) : null;
  if (within) {
    const base = rendering.pictureOf(within, multiply(view, within.matrix), width, height);
    putPlaced(mask, base);
  } else if (!clips) {
    mask.context.fillStyle = '#000000';
    mask.context.fillRect(0, 0, width, height);
  }
  for (const cut of cuts) {
    const item: DrawItem = { ...own!, ...cut, within: null, cuts: [], look: null, tint: null };
    const whole = rendering.make(width, height);
    layPart(whole, {
      ...rendering.pictureOf(item, multiply(view, cut.matrix), width, height),
      opacity: 1,
      blend: 'normal',
    });
    layPicture(mask, whole.picture, 1, 'normal', cut.inverted ? 'destination-in' : 'destination-out');
  }
  return mask;
}

/** The item of the layer that another clips to, or null where it shows nothing. */
function clipBase(
  doc: ShotDocument,
  shotFrame: number,
  layer: Layer,
  place: string | null,
  options: DrawOptions,
): DrawItem | null {
  const element = find(doc, 'element', layer.elementId);
  const timed = element ? timedLayers(doc, element) : [];
  const at = timed.findIndex((each) => each.layer.id === layer.id);
  const base = timed.slice(at + 1).find((each) => !each.layer.clip || each.folder?.id !== timed[at]!.folder?.id);
  if (!base || base.folder?.id !== timed[at]!.folder?.id) return null;
  return drawListOf(doc, shotFrame, options).find((s) => s.place === place && s.layerId === base.layer.id) ?? null;
}
