/** Where things snap to while they are moved: guides, other anchors, followed points, the middle and edges of the picture. */
import { standing } from '@tallow/core/assembly';
import { find, findAll, shotOf, type Id } from '@tallow/core/document';
import { apply, type Point } from '@tallow/core/geometry';
import { shownOn, timedLayers } from '@tallow/core/timing';
import { usesOn, type Level } from './placing.ts';

interface Snap {
  /** Places a thing snaps to whole. */
  readonly points: readonly Point[];
  /** Heights and sides it snaps to by one coordinate. */
  readonly xs: readonly number[];
  readonly ys: readonly number[];
}

/** What there is to snap to on a frame, px of the shot. @param moved the uses that are moved themselves. */
export function snapsOn(level: Level, moved: readonly Id[], shotFrame: number): Snap {
  const { doc, path } = level;
  const { width, height, guides } = shotOf(doc);
  const points: Point[] = [];
  const [xs, ys] = [
    [0, width / 2, width],
    [0, height / 2, height],
  ];
  for (const { form, elementId, visible, x, y } of findAll(doc, 'guide', guides)) {
    if (elementId !== null || !visible) continue;
    if (form === 'level') ys.push(y);
    if (form === 'plumb') xs.push(x);
  }
  for (const { placement, element } of usesOn(level)) {
    if (moved.includes(placement.id)) continue;
    const use = standing(doc, [...path, placement], shotFrame);
    if (!use) continue;
    points.push(apply(use.matrix, placement.anchor ?? element.anchor));
    for (const trace of element.traces) {
      const timed = timedLayers(doc, element).find(({ layer }) => layer.id === trace.layerId);
      const slot = timed && shownOn(timed, use.moment.frame, use.length)?.slot;
      const at = slot ? trace.points[slot] : undefined;
      if (at) points.push(apply(use.matrix, at));
    }
    if (find(doc, 'path', placement.way?.pathId)) points.push({ x: use.matrix[4], y: use.matrix[5] });
  }
  return { points, xs, ys };
}

/** A place as it snaps. @param reach px of the shot. */
export function snapped({ points, xs, ys }: Snap, at: Point, reach: number): Point {
  const near = points.find((p) => Math.hypot(p.x - at.x, p.y - at.y) < reach);
  if (near) return near;
  return {
    x: xs.find((x) => Math.abs(x - at.x) < reach) ?? at.x,
    y: ys.find((y) => Math.abs(y - at.y) < reach) ?? at.y,
  };
}
