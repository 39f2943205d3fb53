/** Target pictures beside the picture: the wanted look, in view while drawing. */
import { findAll, shotOf } from '@tallow/core/document';
import { assetAt } from '@tallow/core/render';
import { shotFrameOf, useCurrent } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';

export function Targets() {
  const now = useCurrent();
  const frame = useSelection((s) => s.frame);
  const turn = useSelection((s) => s.turn);
  if (!now) return null;
  const shown = findAll(now.doc, 'plate', shotOf(now.doc).plates).flatMap((plate) => {
    const asset = assetAt(plate, shotFrameOf(now, frame, turn));
    return plate.beside && plate.visible && asset ? [{ plate, asset }] : [];
  });
  if (shown.length === 0) return null;
  return (
    <aside
      aria-label="Target pictures"
      className="flex w-56 shrink-0 flex-col justify-center gap-3 overflow-hidden bg-surround p-3"
    >
      {shown.map(({ plate, asset }) => (
        <figure key={plate.id} className="min-h-0">
          <img
            src={`/api/assets/${asset}`}
            alt={plate.name}
            className="max-h-full w-full object-contain"
            style={{ opacity: plate.opacity }}
            data-testid="target"
          />
        </figure>
      ))}
    </aside>
  );
}
