/** The strip: the whole shot, each element's own drawings in a row, a notch per turn. */
import { placedElements } from '@tallow/core/timing';
import { randomId, shotOf } from '@tallow/core/document';
import { addElement } from '@tallow/core/edit';
import { Library, Plus } from 'lucide-react';
import { act } from '../actions/action.ts';
import { titleOf } from '../actions/key-text.ts';
import { usePlayback } from '../playback/playback.ts';
import { useShotTime } from '../playback/shot-time.ts';
import { useWidth } from '../parts/use-width.ts';
import { SHELF_ACTIONS } from '../shelf/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { useEffect, useRef } from 'react';
import { currentOf, shotFrameOf, useCurrent, type Current } from '../selection/current.ts';
import { setSelection, useSelection } from '../selection/selection.ts';
import { edit, useDocument } from '../shot/document.ts';
import { NAME_WIDTH, StripRow } from './element-row.tsx';
import { drawRuler, ROW_HEIGHT } from './row.ts';

const RULER = 16;
/** Rows that are seen at once; more are scrolled. */
const MAX_ROWS = 4;

/** The playhead over all rows, without re-rendering them. */
function Playhead({ now, width }: { now: Current; width: number }) {
  const frame = useSelection((s) => s.frame);
  const turn = useSelection((s) => s.turn);
  const { length } = shotOf(now.doc);
  const shot = useShotTime((s) => s.frame);
  const isShot = usePlayback((s) => s.playing && s.playsShot === true);
  const at = isShot ? shot : shotFrameOf(now, Math.min(frame, now.length - 1), turn);
  if (at >= length) return null;
  return (
    <div
      data-testid="strip-playhead"
      className="pointer-events-none absolute bottom-0 top-3 rounded-sm bg-wax-100/35"
      style={{ left: NAME_WIDTH + (at * width) / length, width: Math.max(3, width / length) }}
    />
  );
}

/** @param isUp whether its rows are put up yet: their room is kept meanwhile. */
export function Strip({ isUp }: { isUp: boolean }) {
  const now = useCurrent();
  const doc = useDocument((s) => s.doc);
  const host = useRef<HTMLDivElement>(null);
  const ruler = useRef<HTMLCanvasElement>(null);
  const width = useWidth(host);
  const whole = usePlayback((s) => s.playsShot === true);

  const length = doc ? shotOf(doc).length : 0;
  useEffect(() => {
    const context = ruler.current?.getContext('2d');
    if (context && width > 0) drawRuler(context, length, width, RULER, devicePixelRatio);
  }, [length, width]);

  if (!now || !doc) return null;
  const rows = placedElements(doc).flatMap(
    ({ element, placement }) => currentOf(doc, { elementId: element.id, layerId: null, place: placement.id }) ?? [],
  );
  const add = (): void => {
    let made = '';
    edit('add element', (d) => {
      const added = addElement(d, `Element ${shotOf(d).elements.length + 1}`, shotFrameOf(now, 0, 0), randomId);
      made = added.elementId;
      return added.doc;
    });
    setSelection({ elementId: made, layerId: null, frame: 0, turn: 0, selectedRuns: null });
  };
  return (
    <div
      className="relative shrink-0 border-t border-soot-700 bg-soot-950 pb-1.5 pr-4 pt-1"
      data-testid="strip"
      data-time
    >
      <div className="flex">
        <div
          className="flex shrink-0 items-center justify-end gap-1 pr-2 text-wax-500"
          style={{ width: NAME_WIDTH, height: RULER + 4 }}
        >
          <button
            type="button"
            aria-label="The shelf"
            data-tip={titleOf(SHELF_ACTIONS.shelf)}
            className="moves grid h-full w-6 place-items-center hover:text-wax-100"
            onClick={() => {
              act(SHELF_ACTIONS.shelf);
            }}
          >
            <Library size={13} />
          </button>
          <button
            type="button"
            onClick={add}
            data-tip="An element with a time of its own, in front of the others"
            className="moves flex h-full items-center gap-1 text-xs hover:text-wax-100"
          >
            <Plus size={12} /> Add element
          </button>
        </div>
        <div ref={host} className="min-w-0 flex-1">
          <canvas
            ref={ruler}
            width={Math.round(width * devicePixelRatio)}
            height={Math.round(RULER * devicePixelRatio)}
            style={{ width, height: RULER }}
          />
        </div>
      </div>
      <div
        className={rows.length > MAX_ROWS ? 'overflow-y-auto [scrollbar-width:none]' : ''}
        style={{ maxHeight: MAX_ROWS * ROW_HEIGHT + ROW_HEIGHT / 2 }}
      >
        {isUp ? null : <div style={{ height: rows.length * ROW_HEIGHT }} />}
        {(isUp ? rows : []).map((row, i) => (
          <StripRow
            key={row.place ?? row.element.id}
            row={row}
            active={row.place === now.path[0]?.id}
            width={width}
            first={i === 0}
            last={i === rows.length - 1}
            only={rows.length === 1}
          />
        ))}
      </div>
      <Playhead now={now} width={width} />
      <button
        type="button"
        aria-pressed={whole}
        data-tip={titleOf(TIME_ACTIONS.playsShot)}
        className={`moves absolute right-4 top-0.5 h-5 rounded bg-soot-950 px-1.5 text-[11px] ${whole ? 'text-flame' : 'text-wax-500 hover:text-wax-100'}`}
        onClick={() => {
          act(TIME_ACTIONS.playsShot);
        }}
      >
        plays {whole ? 'the shot' : 'the element'}
      </button>
    </div>
  );
}
