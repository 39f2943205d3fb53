/** How much each drawing of a row covers, how long it is, and where the eye loses the form from one to the next. */
import { marksOfPiece } from '../between/index.ts';
import type { Drawing, Mark } from '../document/index.ts';
import { flowBetween } from './flow.ts';
import { smearSilhouette, type Silhouette } from './silhouette.ts';
import { speedOf, type StepSpeed } from './speeds.ts';

/** A drawing of the row: its marks on all layers of the subject. */
export type DrawingRow = readonly (readonly Mark[])[];

export interface Volume {
  /** px². */
  readonly area: number;
  /** From end to end the way it is longest, px. */
  readonly length: number;
}

/** A step from one drawing of the row to the next, of one piece or of all. */
export interface StepSeen extends StepSpeed {
  readonly from: number;
  readonly to: number;
  readonly piece: string | null;
}

/** How long outlines are along their main axis, px: that of the largest spread of their points. */
function lengthOf({ outlines }: Silhouette): number {
  const points = outlines.flat();
  if (points.length === 0) return 0;
  const [mx, my] = [0, 1].map((axis) => points.reduce((sum, p) => sum + p[axis as 0 | 1], 0) / points.length);
  let [xx, xy, yy] = [0, 0, 0];
  for (const [x, y] of points) {
    const [dx, dy] = [x - mx!, y - my!];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const axis = 0.5 * Math.atan2(2 * xy, xx - yy);
  const along = points.map(([x, y]) => x * Math.cos(axis) + y * Math.sin(axis));
  return along.reduce((a, b) => Math.max(a, b)) - along.reduce((a, b) => Math.min(a, b));
}

const asDrawing = (marks: readonly Mark[]): Drawing => ({
  kind: 'drawing',
  id: '',
  marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
  order: marks.map(({ id }) => id),
});

const piecesOn = (marks: readonly Mark[]): Set<string> =>
  new Set(marks.flatMap((mark) => (mark.kind !== 'rub' && mark.piece ? [mark.piece] : [])));

/** What is seen of a row of drawings. @param round whether the last leads on to the first. */
export function volumesOf(row: DrawingRow, round: boolean): { volumes: Volume[]; steps: StepSeen[] } {
  const forms = row.map(smearSilhouette);
  const volumes = forms.map((form) => ({ area: form.area, length: lengthOf(form) }));
  const count = round && row.length > 2 ? row.length : row.length - 1;
  const steps = Array.from({ length: Math.max(0, count) }, (_, from): StepSeen[] => {
    const to = (from + 1) % row.length;
    const [a, b] = [row[from]!, row[to]!];
    const names = [...piecesOn(a)].filter((name) => piecesOn(b).has(name));
    const seen = (piece: string | null, left: Silhouette, arrived: Silhouette): StepSeen[] =>
      left.area === 0 || arrived.area === 0
        ? []
        : [{ from, to, piece, ...speedOf(flowBetween(left.middle, arrived.middle), left, arrived) }];
    if (names.length === 0) return seen(null, forms[from]!, forms[to]!);
    return names.flatMap((name) =>
      seen(name, smearSilhouette(marksOfPiece(asDrawing(a), name)), smearSilhouette(marksOfPiece(asDrawing(b), name))),
    );
  });
  return { volumes, steps: steps.flat() };
}

/** The usual of some areas: their median. */
export function typicalArea(areas: readonly number[]): number {
  const sorted = areas.filter((area) => area > 0).sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
