/** How bright what is drawn is: area times brightness of each drawing, against the largest of its element. */
import type { Drawing, Element, Id, Mark, Placement, ShotDocument } from '../document/index.ts';
import { channels, luminance } from '../colour/index.ts';
import { doubleAreaOf, modulo, ringPoints } from '../geometry/index.ts';
import { elementLength, isVisible, roundOf, shownOn, timedLayers } from '../timing/index.ts';
import { find, valueAt } from '../document/index.ts';

/** Points a curved piece is measured by. */
const STEPS = 4;

/** About what a mark covers, px². Rings that run the other way take away. */
function areaOf(mark: Mark): number {
  if (mark.kind === 'shape')
    return (
      Math.abs(mark.rings.reduce((sum, ring) => sum + doubleAreaOf(ringPoints(ring, STEPS)), 0) / 2) * mark.opacity
    );
  if (mark.kind === 'rub' || mark.unseen) return 0;
  const { x, y } = mark.samples;
  let length = 0;
  for (let i = 1; i < x.length; i++) {
    const [dx, dy] = [x[i]! - x[i - 1]!, y[i]! - y[i - 1]!];
    length += Math.sqrt(dx * dx + dy * dy);
  }
  return length * mark.brush.width * mark.brush.opacity;
}

/** Drawings never change: what each covers in each swatch is worked out once. */
const areas = new WeakMap<Drawing, ReadonlyMap<Id, number>>();

/** What a drawing covers in each swatch, px². */
export function areasOf(drawing: Drawing): ReadonlyMap<Id, number> {
  const known = areas.get(drawing);
  if (known) return known;
  const found = new Map<Id, number>();
  for (const mark of Object.values(drawing.marks)) {
    if (mark.kind === 'rub') continue;
    found.set(mark.swatch, (found.get(mark.swatch) ?? 0) + areaOf(mark));
  }
  areas.set(drawing, found);
  return found;
}

const curves = new WeakMap<ShotDocument, Map<string, readonly number[]>>();

/**
 * How bright each frame of an element is, 0 to 1, the brightest being 1; all 0 where nothing bright is drawn.
 * What stands still beside the effect, on layers of one drawing throughout, doesn't count unless it is all there is.
 * @param layers the layers that are seen, or null for all. @param colourOf the plain colour of a swatch.
 */
export function brightnessOf(
  doc: ShotDocument,
  element: Element,
  layers: Placement['layers'],
  colourOf: (swatch: Id) => string,
): readonly number[] {
  const known = curves.get(doc) ?? new Map<string, readonly number[]>();
  curves.set(doc, known);
  const key = `${element.id} ${layers?.join() ?? ''}`;
  const found = known.get(key) ?? measured(doc, element, layers, colourOf);
  known.set(key, found);
  return found;
}

function measured(
  doc: ShotDocument,
  element: Element,
  layers: Placement['layers'],
  colourOf: (swatch: Id) => string,
): readonly number[] {
  const length = elementLength(doc, element);
  const round = roundOf(element, length);
  const seen = timedLayers(doc, element).filter(
    (timed) =>
      isVisible(timed) &&
      timed.layer.role !== 'guide' &&
      timed.layer.role !== 'matte' &&
      !timed.layer.forWork &&
      (!layers || layers.includes(timed.layer.id)),
  );
  const moving = seen.filter(({ list }) => list.period !== 1);
  const lights = new Map<Id, number>();
  const lightOf = (swatch: Id): number => {
    const light = lights.get(swatch) ?? luminance(...channels(colourOf(swatch)));
    lights.set(swatch, light);
    return light;
  };
  const sums = Array.from({ length }, (_, frame) => {
    let sum = 0;
    for (const timed of moving.length > 0 ? moving : seen) {
      const drawing = find(doc, 'drawing', shownOn(timed, frame, length)?.drawingId);
      if (!drawing) continue;
      const opacity = valueAt(timed.layer.opacity, frame, round);
      for (const [swatch, area] of areasOf(drawing)) sum += area * lightOf(swatch) * opacity;
    }
    return sum;
  });
  const max = Math.max(0, ...sums);
  return sums.map((sum) => (max > 0 ? sum / max : 0));
}

/**
 * A frame's brightness, smoothed evenly over frames to both sides: round the seam of a cycle, up to the ends otherwise.
 * @param wide frames to each side. @param round frames of a turn, or null where time ends.
 */
export function smoothedAt(curve: readonly number[], frame: number, wide: number, round: number | null): number {
  let [sum, count] = [0, 0];
  for (let i = frame - wide; i <= frame + wide; i++) {
    const at = round === null ? i : modulo(i, round);
    const value = curve[at];
    if (value === undefined) continue;
    sum += value;
    count += 1;
  }
  return count > 0 ? sum / count : 0;
}
