/** Changes of a path from its settings. */
import { randomId, type Path } from '@tallow/core/document';
import { setPath, stampPath, type PathSettings } from '@tallow/core/edit';
import { toolState } from '../hand/tool-state.ts';
import { swatchOf, type Current } from '../selection/current.ts';
import { setSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';

export const changePath = (path: Path, name: string, settings: PathSettings, gesture?: string): void => {
  edit(name, (doc) => setPath(doc, path.id, settings), gesture);
};

/** Stamps the path's stand-in onto a new layer. @param every frames from one drawing to the next, at least the path's own. */
export function stamp(now: Current, path: Path, every: number): void {
  const swatch = swatchOf(now.doc, toolState().swatchId);
  if (!swatch) {
    say('The palette is empty. Add a swatch to stamp with.');
    return;
  }
  let made = '';
  edit(`stamp ${path.name}`, (doc) => {
    const stamped = stampPath(doc, path.id, swatch.id, every, randomId);
    made = stamped.layerId;
    return stamped.doc;
  });
  setSelection({ layerId: made, frame: path.from, selectedRuns: null });
  say(
    `${Math.ceil(path.ticks / Math.max(1, Math.round(every / path.hold)))} drawings are stamped on a new layer, “${path.name}”.`,
  );
}
