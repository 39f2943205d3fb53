/** Following one piece or one point round, seeing where pieces go next, and letting a held drawing breathe. */
import { nextPieceName, piecesOf, pieceTicks } from '@tallow/core/between';
import { randomId, shotOf } from '@tallow/core/document';
import { addPlatePoints, dropTrace, traceTicks, whyNotPlatePoints } from '@tallow/core/edit';
import { drawingsInOrder } from '@tallow/core/timing';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Check, Fold, Line, Panel, Small } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { boilHere, whyNotBoil } from '../../time/boil.ts';
import { useCurrent, type Current } from '../../selection/current.ts';
import { setSelection, useSelection } from '../../selection/selection.ts';
import { setToolState, useIsHeld, takeTool } from '../../hand/tool-state.ts';
import { setShowing, useShowing } from '../../picture/showing.ts';
import { edit } from '../../shot/document.ts';
import { goTo } from '../../playback/playhead.ts';
import { showPanel } from '../../screen/panels.ts';
import { RideRow } from './ride-row.tsx';
import { POINT } from './tool.ts';

const CHART = { width: 328, height: 36 };

/** How large the piece is on each drawing. */
function Areas({ now, piece }: { now: Current; piece: string }) {
  const frame = useSelection((s) => s.frame);
  const ticks = pieceTicks(drawingsInOrder(now.doc, now.active, now.length), piece);
  if (ticks.length === 0) return null;
  const max = Math.max(...ticks.map(({ area }) => area));
  const here = ticks.findLast((tick) => tick.frame <= frame);
  return (
    <div className="py-1">
      <svg
        width={CHART.width}
        height={CHART.height}
        className="block shrink-0 rounded-md bg-soot-950"
        data-testid="piece-areas"
      >
        {ticks.map((tick) => (
          <rect
            key={tick.frame}
            x={2 + ((CHART.width - 4) * tick.frame) / now.length}
            width={Math.max(3, (CHART.width - 4) / now.length - 1)}
            y={CHART.height - 3 - (28 * tick.area) / max}
            height={(28 * tick.area) / max}
            rx={2}
            fill={tick === here ? '#ffc25c' : '#6b6055'}
            onClick={() => {
              goTo(tick.frame);
            }}
          />
        ))}
      </svg>
      {here ? (
        <p className="pt-1 text-xs text-wax-500">
          Area {Math.round(here.area)} px², {Math.round((100 * here.area) / max)} % of its largest
        </p>
      ) : null}
    </div>
  );
}

function Piece({ now }: { now: Current }) {
  const piece = useSelection((s) => s.piece);
  const drawings = drawingsInOrder(now.doc, now.active, now.length);
  const pieces = piecesOf(drawings);
  const follow = (name: string) => {
    setSelection({ piece: name });
    setToolState({ goesOn: true });
    takeTool(null);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5 py-1">
        {pieces.map(({ name, drawings }) => (
          <button
            key={name}
            type="button"
            aria-pressed={piece === name}
            className={`moves h-8 rounded-lg px-2.5 text-[13px] ${piece === name ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'}`}
            onClick={() => {
              if (piece === name) {
                setSelection({ piece: null });
                setToolState({ goesOn: false });
              } else follow(name);
            }}
          >
            {name} <span className="font-mono text-xs text-wax-500">{drawings}</span>
          </button>
        ))}
        <Small
          title="What you draw next is a piece of its own; each stroke goes on to the next drawing"
          onClick={() => {
            follow(nextPieceName(drawings));
            goTo(0);
          }}
        >
          Next piece
        </Small>
      </div>
      {piece === null ? (
        <p className="text-xs text-wax-500">Draw one drop, puff or lick right round, then the next.</p>
      ) : (
        <>
          <p className="text-xs text-wax-500" data-testid="piece-now">
            Drawing {piece}: one stroke a drawing, on to the next by itself. Only its own ghosts are shown.
          </p>
          <Areas now={now} piece={piece} />
          <Small
            onClick={() => {
              setSelection({ piece: null });
              setToolState({ goesOn: false });
            }}
          >
            Done with {piece}
          </Small>
        </>
      )}
    </>
  );
}

/** Goes on a guide layer whose points are clicked on the plate, from the first frame on. */
function followPlate(now: Current): void {
  const { length } = shotOf(now.doc);
  // What is open may go on to the end of the shot; what has a length of its own keeps it.
  const isOpen = now.element.time === 'open';
  const frames = isOpen ? Math.max(now.length, length - (now.placement?.start ?? 0)) : now.length;
  let layerId: string | null = null;
  edit('points of a plate', (doc) => {
    const added = addPlatePoints(doc, now.element.id, Math.max(1, frames), randomId);
    ({ layerId } = added);
    return added.doc;
  });
  setSelection({ layerId, traceId: null });
  takeTool(POINT);
  goTo(0);
}

function Points({ now }: { now: Current }) {
  const traceId = useSelection((s) => s.traceId);
  const own = now.element.traces.filter(({ layerId }) => layerId === now.active?.layer.id);
  const current = own.find(({ id }) => id === traceId);
  const following = useIsHeld(POINT);
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5 py-1">
        {own.map((trace, i) => (
          <span key={trace.id} className="flex items-center">
            <button
              type="button"
              aria-pressed={traceId === trace.id}
              className={`moves h-8 rounded-lg px-2.5 text-[13px] ${traceId === trace.id ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'}`}
              onClick={() => {
                setSelection({ traceId: trace.id });
              }}
            >
              point {i + 1} <span className="font-mono text-xs text-wax-500">{traceTicks(now.doc, trace).length}</span>
            </button>
            <button
              type="button"
              aria-label={`Forget point ${i + 1}`}
              data-tip="Forget it"
              className="moves grid size-8 place-items-center rounded-md text-wax-500 hover:text-wax-100"
              onClick={() => {
                edit('forget point', (doc) => dropTrace(doc, now.element.id, trace.id));
              }}
            >
              <Trash2 size={13} />
            </button>
          </span>
        ))}
        <Small
          title="Click the same point on each drawing; the playhead goes on by itself"
          onClick={() => {
            takeTool(following && !current ? null : POINT);
            setSelection({ traceId: null });
          }}
        >
          New point
        </Small>
        <Small
          onClick={() => {
            takeTool(following ? null : POINT);
          }}
        >
          {following ? 'Draw again' : 'Click points'}
        </Small>
        <Small
          title="A guide layer with room for a point on every frame: click what moves in the plate"
          whyNot={whyNotPlatePoints(now.doc)}
          onClick={() => {
            followPlate(now);
          }}
        >
          On a plate
        </Small>
      </div>
      <p className="text-xs text-wax-500">
        {following
          ? 'Click the same point on this drawing or frame, and on each that follows.'
          : 'Its arc and ticks lie on the picture. Drag a tick: it becomes the target for drawing it anew.'}
      </p>
    </>
  );
}

function Breath() {
  const [amount, setAmount] = useState(3);
  const [scale, setScale] = useState(60);
  const [seed, setSeed] = useState(1);
  const [variants, setVariants] = useState(2);
  const [hold, setHold] = useState(2);
  useSelection((s) => s.frame);
  return (
    <>
      <Slider label="Strays" value={amount} min={0.5} max={24} step={0.5} unit="px" onMove={setAmount} />
      <Slider label="Scale" value={scale} min={8} max={400} unit="px" onMove={setScale} />
      <Slider label="Variants" value={variants} min={1} max={8} onMove={setVariants} />
      <Slider label="Each held" value={hold} min={1} max={8} unit="f" onMove={setHold} />
      <div className="flex items-center justify-between py-1">
        <Small
          title="Other variants of the same kind"
          onClick={() => {
            setSeed(seed + 1);
          }}
        >
          Seed {seed}
        </Small>
        <Small
          title="For as long as this drawing is held; a still layer becomes a loop of its own"
          whyNot={whyNotBoil(Math.round(hold))}
          onClick={() => {
            boilHere({ amount, scale, seed }, Math.round(variants), Math.round(hold));
          }}
        >
          Let it boil
        </Small>
      </div>
    </>
  );
}

export function PiecePanel() {
  const now = useCurrent();
  const ahead = useShowing((s) => s.ahead);
  return (
    <Panel
      label="Follow"
      testId="piece-panel"
      heading="Follow one piece"
      onBack={() => {
        setSelection({ piece: null });
        showPanel(null);
      }}
    >
      {now ? <Piece now={now} /> : null}
      <Line />
      <h3 className="font-name text-[15px]">Follow a point</h3>
      {now ? <Points now={now} /> : null}
      {now && now.element.traces.length > 0 ? (
        <Fold label="Let something ride on it">
          <RideRow now={now} marks={[]} />
        </Fold>
      ) : null}
      <Line />
      <Check
        label="Show where pieces would be next"
        title="From the two drawings before: where, how large and how far turned"
        checked={ahead}
        onChange={(on) => {
          setShowing({ ahead: on });
        }}
      />
      <Line />
      <Fold label="Boil">
        <Breath />
      </Fold>
    </Panel>
  );
}
