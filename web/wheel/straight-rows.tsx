/** The runs on the unrolled wheel: the pictures' places and a row for each layer or bundle. Nothing here but the marks of the playhead changes with the frame. */
import { isSelected } from '@tallow/core/edit';
import { arcsOf, isVisible, type Arc } from '@tallow/core/timing';
import { memo, useMemo } from 'react';
import type { Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useFindings } from '../time/findings.ts';
import { BAND, isIn, xOf, type Band, type BandRow } from './band.ts';
import { PICTURES_TOP, QuietRow } from './straight-parts.tsx';

const NONE: readonly Arc[] = [];

/** The run shown at the playhead. */
const useHere = (arcs: readonly Arc[]): Arc | undefined =>
  arcs[useSelection(({ frame }) => arcs.findIndex(({ from, to }) => frame >= from && frame < to))];

/** Where the picture of a run stands. */
const cellOf = ({ from, to }: Arc, band: Band) => ({
  x: xOf(band, from) + 0.5,
  width: Math.max(2, (to - from) * band.perFrame - 1),
  y: PICTURES_TOP,
  height: BAND.pictures,
  rx: 3,
});

/** Where a run lies on the active layer's row. */
const barOf = ({ from, to }: Arc, band: Band, { top, height }: BandRow) => ({
  x: xOf(band, from) + 0.5,
  width: Math.max(1.5, (to - from) * band.perFrame - 1),
  y: top,
  height,
  rx: 2.5,
});

function HereCell({ arcs, band }: { arcs: readonly Arc[]; band: Band }) {
  const here = useHere(arcs);
  if (!here) return null;
  return (
    <rect
      {...cellOf(here, band)}
      fill={here.drawn ? '#33291f' : 'none'}
      stroke="#ffc25c"
      strokeDasharray={here.drawn ? undefined : '2 4'}
      strokeWidth={1.5}
    />
  );
}

/** The places of the pictures, with a dot where something is odd. */
export const Cells = memo(function Cells({ now, band, index }: { now: Current; band: Band; index: number }) {
  const findings = useFindings(now);
  const arcs = index < 0 ? NONE : arcsOf(now, index);
  return (
    <>
      {arcs.filter(isIn(band)).map((a) => (
        <rect
          key={`${a.run}-${a.from}`}
          {...cellOf(a, band)}
          fill={a.drawn ? '#211b16' : 'none'}
          stroke={a.drawn ? 'none' : '#332b25'}
          strokeDasharray={a.drawn ? undefined : '2 4'}
        />
      ))}
      <HereCell arcs={arcs} band={band} />
      {arcs.filter(isIn(band)).map((a) => {
        const odd = findings.find((f) => f.index === a.run && f.layerId === now.active?.layer.id);
        return odd ? (
          <circle key={`${a.run}-${a.from}`} cx={xOf(band, a.from) + 6} cy={PICTURES_TOP + 6} r={3} fill="#e6b450">
            <title>{odd.text}</title>
          </circle>
        ) : null;
      })}
    </>
  );
});

function HereBar({ arcs, band, row }: { arcs: readonly Arc[]; band: Band; row: BandRow }) {
  const here = useHere(arcs);
  return here ? <rect {...barOf(here, band, row)} fill="#ffc25c" /> : null;
}

/** The row that is drawn on: its runs, those picked marked. */
function ActiveRow({ now, band, index, row }: { now: Current; band: Band; index: number; row: BandRow }) {
  const selected = useSelection((s) => s.selectedRuns);
  const drawn = useMemo(() => arcsOf(now, index).filter((a) => a.drawn), [now, index]);
  const runs = now.layers[index]!.list.runs.length;
  const isChosen = ({ run }: Arc) => selected?.layerId === now.active?.layer.id && isSelected(selected!, run, runs);
  return (
    <>
      <rect x={xOf(band, 0)} width={now.length * band.perFrame} y={row.top} height={row.height} rx={4} fill="#231c17" />
      {drawn.filter(isIn(band)).map((a) => (
        <rect key={`${a.run}-${a.from}`} {...barOf(a, band, row)} fill="#a97d37" />
      ))}
      <HereBar arcs={drawn} band={band} row={row} />
      {drawn
        .filter((a) => isIn(band)(a) && isChosen(a))
        .map((a) => (
          <rect
            key={`chosen-${a.run}-${a.from}`}
            {...barOf(a, band, row)}
            fill="#ffe2b0"
            stroke="#ffc25c"
            strokeWidth={2}
            data-picked
          />
        ))}
    </>
  );
}

/** @param groups layers of each row, several where they are bundled. @param active index of the row drawn on. */
export const BandRows = memo(function Rows({
  now,
  band,
  groups,
  rows,
  active,
}: {
  now: Current;
  band: Band;
  groups: readonly (readonly number[])[];
  rows: readonly BandRow[];
  active: number;
}) {
  return groups.map((group, g) => (
    <g key={now.layers[group[0]!]!.layer.id} opacity={group.length > 1 || isVisible(now.layers[group[0]!]!) ? 1 : 0.35}>
      {g === active ? (
        <ActiveRow now={now} band={band} index={group[0]!} row={rows[g]!} />
      ) : (
        <QuietRow now={now} band={band} group={group} row={rows[g]!} />
      )}
    </g>
  ));
});

/** The frame shown, through all rows. */
export function FrameBar({ now, band, height }: { now: Current; band: Band; height: number }) {
  const frame = useSelection((s) => Math.min(s.frame, now.length - 1));
  return (
    <rect
      x={xOf(band, frame)}
      width={band.perFrame}
      y={BAND.ruler - 10}
      height={height - BAND.ruler + 10}
      fill="#ffc25c"
      fillOpacity={0.14}
      stroke="#ffc25c"
      strokeOpacity={0.6}
      pointerEvents="none"
      data-playhead={frame}
    />
  );
}
