/** What is done to the lines whose points are shown: smoothed, widened, cut, and points taken away or added. */
import { randomId, type RubOut, type Stroke } from '@tallow/core/document';
import { changeMarks, replaceMarks } from '@tallow/core/edit';
import {
  samplesAt as selectedSamples,
  smoothed,
  splitSamples,
  widened,
  withNodes,
  withoutControlPoint,
  withoutNodes,
} from '@tallow/core/marks';
import { edit, say } from '../../shot/document.ts';
import { isChangeable } from '../pick/pick.ts';
import { reshapeBy, selectedControlPoints, setReshape, shapedDrawing, thinning } from './reshape.ts';

export const whyNotReshape = (): string | null => (selectedControlPoints().length > 0 ? null : 'Take a point first.');

export const smooth = (): void => {
  reshapeBy('smooth', selectedControlPoints(), (mark, weights, share) => {
    let next = mark;
    for (let i = 0; i < 6; i++)
      next = smoothed(
        next,
        weights.map((w) => w.map((v) => v * share)),
      );
    return next;
  });
};

/** @param factor above 1 widens, below 1 thins. */
export const widen = (factor: number): void => {
  reshapeBy(factor > 1 ? 'widen' : 'thin', selectedControlPoints(), (mark, weights, share) =>
    widened(
      mark,
      weights.map((w) => w.map((v) => v * share)),
      factor,
    ),
  );
};

type Line = Stroke | RubOut;

/** Changes the strokes that have taken points. @param change gets each with its points, in order. */
function changeLines(name: string, change: (line: Line, indices: readonly number[]) => readonly Line[]): void {
  if (!isChangeable()) return;
  const drawing = shapedDrawing();
  if (!drawing) return;
  const controlPoints = selectedControlPoints();
  const lines = [...new Set(controlPoints.map(({ markId }) => markId))].filter(
    (id) => drawing.marks[id]?.kind !== 'shape',
  );
  edit(name, (doc) =>
    replaceMarks(doc, { [drawing.id]: lines }, (mark) => {
      if (mark.kind === 'shape') return [mark];
      const indices = controlPoints.flatMap((g) => (g.markId === mark.id ? [g.index] : [])).sort((a, b) => a - b);
      return change(mark, indices);
    }),
  );
  setReshape({ controlPoints: [] });
}

/** Cuts strokes at the taken points. */
export function cutAtControlPoints(): void {
  changeLines('cut the stroke', (line, indices) =>
    splitSamples(line.samples, indices).map((samples, i) => ({ ...line, id: i === 0 ? line.id : randomId(), samples })),
  );
}

/** Takes the taken points away: lines go straight to their neighbours, shapes lose the node. */
export function removeControlPoints(): void {
  if (!isChangeable()) return;
  const drawing = shapedDrawing();
  const controlPoints = selectedControlPoints();
  if (!drawing) return;
  const touched = [...new Set(controlPoints.map(({ markId }) => markId))];
  edit('remove points', (doc) =>
    changeMarks(doc, { [drawing.id]: touched }, (mark) => {
      const own = controlPoints.filter((g) => g.markId === mark.id);
      if (mark.kind === 'shape') {
        const rings = mark.rings.map((ring, r) =>
          withoutNodes(
            ring,
            own.filter((g) => g.ring === r).map((g) => g.index),
          ),
        );
        return { ...mark, rings };
      }
      let kept = Array.from(mark.samples.x.keys());
      for (const { index } of own) {
        const without = new Set(withoutControlPoint(mark.samples, index, thinning()));
        kept = kept.filter((i) => without.has(i));
      }
      return kept.length < 2 ? mark : { ...mark, samples: selectedSamples(mark.samples, kept) };
    }),
  );
  setReshape({ controlPoints: [] });
}

/** Puts a point between each taken one and the next: on strokes a sample, on shapes a node, without changing the line. */
export function addControlPoints(): void {
  const drawing = shapedDrawing();
  const controlPoints = selectedControlPoints();
  if (!drawing || controlPoints.length === 0 || !isChangeable()) return;
  edit('add points', (doc) =>
    changeMarks(doc, { [drawing.id]: [...new Set(controlPoints.map(({ markId }) => markId))] }, (mark) => {
      if (mark.kind !== 'shape') return mark;
      return {
        ...mark,
        rings: mark.rings.map((ring, r) =>
          withNodes(
            ring,
            controlPoints.filter((g) => g.markId === mark.id && g.ring === r).map((g) => g.index),
          ),
        ),
      };
    }),
  );
  if (controlPoints.some((g) => drawing.marks[g.markId]?.kind !== 'shape'))
    say('Strokes have a point wherever they are pulled: press on the line between its points.');
}
