/** Carrying: what is picked up, or the active layer, rides on a followed point, turned by a second one. */
import { rideables, type Rideable } from '@tallow/core/assembly';
import { find, randomId, type Id, type ShotDocument } from '@tallow/core/document';
import { freeRide, layRide, rideOfLayer, setRide, whyNotRide, type RideAsked } from '@tallow/core/edit';
import { useState } from 'react';
import { SelectRow, Small } from '../../parts/panel.tsx';
import { withDrawings } from '../../saving/drawings.ts';
import type { Current } from '../../selection/current.ts';
import { setSelection, useSelection } from '../../selection/selection.ts';
import { edit, useDocument } from '../../shot/document.ts';
import { isSeat, rideableKey, rideableLabel } from './rideable.ts';

type PointOf = Pick<Rideable, 'onElementId' | 'onUseId' | 'traceId'> & { readonly label: string };

/** All points that are followed, those of the active element first. */
function pointsOf(doc: ShotDocument, elementId: Id): PointOf[] {
  const own = (find(doc, 'element', elementId)?.traces ?? []).map(({ id }, i) => ({
    onElementId: elementId,
    onUseId: null,
    traceId: id,
    label: `point ${i + 1}`,
  }));
  const others = rideables(doc).filter(({ onElementId }) => onElementId !== elementId);
  return [...own, ...others.map((each) => ({ ...each, label: rideableLabel(each) }))];
}

/** @param marks what is picked up of the drawing shown. */
export function RideRow({ now, marks }: { now: Current; marks: readonly Id[] }) {
  const frame = useSelection((s) => s.frame);
  const [chosen, setChosen] = useState<string | null>(null);
  const [turn, setTurn] = useState<Id | null>(null);
  const points = pointsOf(now.doc, now.element.id);
  const { active } = now;
  if (!active) return null;
  const ride = rideOfLayer(now.doc, active.layer.id);
  const point =
    points.find((each) => (ride ? isSeat(each, ride) : rideableKey(each) === chosen)) ??
    points.find(({ traceId }) => traceId === ride?.traceId) ??
    points[0];
  if (!point)
    return (
      <p className="py-1 text-xs text-wax-500">
        Follow a point first (Follow a piece, a point): things can ride on it.
      </p>
    );
  const turns = [
    { value: '', label: 'nothing' },
    ...points
      .filter(
        ({ onElementId, onUseId, traceId }) =>
          onElementId === point.onElementId && onUseId === point.onUseId && traceId !== point.traceId,
      )
      .map(({ traceId, label }) => ({ value: traceId, label })),
  ];
  if (ride)
    return (
      <div className="py-1">
        <p className="text-[13px] text-wax-300">{`“${active.layer.name}” rides on ${point.label}.`}</p>
        <SelectRow
          label="Turned by"
          value={ride.turnId ?? ''}
          options={turns}
          onChoose={(id) => {
            edit('turn of what rides', (doc) => setRide(doc, ride.id, { turnId: id || null }, randomId));
          }}
        />
        <Small
          title="Its drawings are like all others, and follow the point no more"
          onClick={() => {
            edit('let it ride no more', (doc) => freeRide(doc, ride.id));
          }}
        >
          Let it be
        </Small>
      </div>
    );
  const asked: RideAsked = {
    layerId: active.layer.id,
    frame,
    marks,
    onElementId: point.onElementId,
    useId: now.path?.length === 1 ? (now.placement?.id ?? null) : null,
    onUseId: point.onUseId,
    traceId: point.traceId,
    turnId: turns.some(({ value }) => value === turn) ? turn || null : null,
  };
  return (
    <div className="py-1">
      <SelectRow
        label="Rides on"
        value={rideableKey(point)}
        options={points.map((each) => ({ value: rideableKey(each), label: each.label }))}
        onChoose={setChosen}
      />
      <SelectRow label="Turned by" value={turn ?? ''} options={turns} onChoose={setTurn} />
      <Small
        title="Laid on every drawing the point is on, and again when the point moves"
        whyNot={whyNotRide(now.doc, asked)}
        onClick={() => {
          withDrawings(Object.values(active.layer.slots), () => {
            const { doc } = useDocument.getState();
            if (!doc || whyNotRide(doc, asked)) return;
            let on = asked.layerId;
            edit('ride on a point', (latest) => {
              const laid = layRide(latest, asked, randomId);
              on = laid.layerId;
              return laid.doc;
            });
            setSelection({ layerId: on });
          });
        }}
      >
        {marks.length > 0 ? 'What is picked rides' : 'This layer rides'}
      </Small>
    </div>
  );
}
