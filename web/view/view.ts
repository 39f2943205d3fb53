/** The picture's view: fitted, as a matrix, and zoomed or turned about a point. */
import type { Matrix } from '@tallow/core/geometry';

/** How the picture is seen: the shot's middle, moved by `panX panY` CSS px, scaled, turned and perhaps mirrored. */
export interface View {
  readonly scale: number;
  /** Radians, clockwise. */
  readonly angle: number;
  readonly mirrored: boolean;
  readonly panX: number;
  readonly panY: number;
}

/** Size of the picture's area, CSS px. */
export interface Area {
  readonly width: number;
  readonly height: number;
}

export const FIRST_VIEW: View = { scale: 1, angle: 0, mirrored: false, panX: 0, panY: 0 };

const MARGIN = 26;

/** The view in which the whole shot is seen. */
export function fittedView(size: { width: number; height: number }, area: Area): View {
  const scale = Math.min((area.width - 2 * MARGIN) / size.width, (area.height - 2 * MARGIN) / size.height);
  return { ...FIRST_VIEW, scale: Math.max(0.02, scale) };
}

/** From shot px to CSS px of the picture's area. */
export function viewMatrix(view: View, size: { width: number; height: number }, area: Area): Matrix {
  const cos = Math.cos(view.angle) * view.scale;
  const sin = Math.sin(view.angle) * view.scale;
  const flip = view.mirrored ? -1 : 1;
  const [a, b, c, d] = [flip * cos, flip * sin, -sin, cos];
  const x = area.width / 2 + view.panX;
  const y = area.height / 2 + view.panY;
  return [
    a,
    b,
    c,
    d,
    x - (a * size.width) / 2 - (c * size.height) / 2,
    y - (b * size.width) / 2 - (d * size.height) / 2,
  ];
}

/** The view after zooming and turning about a point of the area that stays where it is, CSS px. */
export function viewAbout(view: View, area: Area, at: { x: number; y: number }, factor: number, turn = 0): View {
  const scale = Math.min(32, Math.max(0.02, view.scale * factor));
  const real = scale / view.scale;
  const fromX = area.width / 2 + view.panX - at.x;
  const fromY = area.height / 2 + view.panY - at.y;
  const cos = Math.cos(turn) * real;
  const sin = Math.sin(turn) * real;
  return {
    ...view,
    scale,
    angle: view.angle + turn,
    panX: at.x + cos * fromX - sin * fromY - area.width / 2,
    panY: at.y + sin * fromX + cos * fromY - area.height / 2,
  };
}
