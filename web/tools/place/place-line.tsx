/** What stands above the assembled picture: the frame of the shot, and the names of what one stands in, each a way back. */
import { shotOf } from '@tallow/core/document';
import { standing } from '@tallow/core/assembly';
import { nameOfUse } from '@tallow/core/timing';
import { useShotTime } from '../../playback/shot-time.ts';
import { useDocument } from '../../shot/document.ts';
import { ShotFrame } from './shot-frame.tsx';
import { levelOf, openInside, selectedUses, usePlacing } from './placing.ts';

const WAY =
  'moves h-8 max-w-40 truncate rounded px-1 text-wax-300 underline decoration-soot-700 underline-offset-4 hover:text-wax-100';

export function PlaceLine() {
  const doc = useDocument((s) => s.doc);
  const frame = useShotTime((s) => s.frame);
  const { selected, inside } = usePlacing();
  if (!doc) return null;
  const level = levelOf(doc, inside);
  const [only, other] = selectedUses(level, selected);
  const use = only && !other ? standing(doc, [...level.path, only], frame) : null;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-1 px-2" data-testid="place-line">
      <ShotFrame frame={frame} length={shotOf(doc).length} />
      {level.path.length > 0 ? (
        <nav aria-label="What one stands in" className="flex min-w-0 items-center gap-1">
          <span className="text-wax-500">·</span>
          <button
            type="button"
            className={WAY}
            onClick={() => {
              openInside(null);
            }}
          >
            Shot
          </button>
          {level.path.map((placement, i) => (
            <span key={placement.id} className="flex min-w-0 items-center gap-1">
              <span className="text-wax-500">›</span>
              <button
                type="button"
                aria-current={i === level.path.length - 1 ? 'location' : undefined}
                className={WAY}
                onClick={() => {
                  openInside(
                    level.path
                      .slice(0, i + 1)
                      .map(({ id }) => id)
                      .join('/'),
                  );
                }}
              >
                {nameOfUse(doc, placement)}
              </button>
            </span>
          ))}
        </nav>
      ) : null}
      {use ? (
        <span className="min-w-0 truncate text-wax-500">
          · <span className="text-flame">{nameOfUse(doc, use.placement)}</span>
          {use.element.time === 'cycle' ? `, turn ${use.moment.turn + 1}` : ''}, frame {use.moment.frame + 1}
        </span>
      ) : selected.length > 1 ? (
        <span className="text-wax-500">· {selected.length} picked</span>
      ) : (
        <span className="min-w-0 truncate text-wax-500">· press a thing to pick it, drag to move it</span>
      )}
    </div>
  );
}
