/** Brushes get better; what was drawn keeps its look until it is taken to the newest. */
import { newestVersion } from '../brush/index.ts';
import type { Mark, ShotDocument } from '../document/index.ts';
import { changeMarks, type MarkSets } from './marks.ts';

/** Whether a mark was drawn with an older version of its brush. */
export const isOlder = (mark: Mark): boolean =>
  mark.kind !== 'shape' && (mark.brush.version ?? 1) < newestVersion(mark.brush.kind);

/** Draws marks with the newest version of their brushes; everything else of them stays. */
export const renewBrushes = (doc: ShotDocument, sets: MarkSets): ShotDocument =>
  changeMarks(doc, sets, (mark) =>
    mark.kind === 'shape' || !isOlder(mark)
      ? mark
      : { ...mark, brush: { ...mark.brush, version: newestVersion(mark.brush.kind) } },
  );
