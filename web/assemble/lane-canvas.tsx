/** The bars of a lane as pictures: each of its own drawings, notched where a turn begins, marked where it is cut off. */
import { timedLayers, cutOff, nameOfUse } from '@tallow/core/timing';
import type { ShotDocument } from '@tallow/core/document';
import { memo, useEffect, useRef } from 'react';
import { coloursIn } from '../picture/content.ts';
import { useArrivals } from '../picture/miniatures.ts';
import { drawDrawings, drawPhases } from '../strip/row.ts';
import type { Bar, Lane } from './lane.ts';

/** About what the name on a bar takes, px: from where, and for each letter. */
const [NAME_AT, LETTER] = [14, 6.2] as const;
export const BAR_HEIGHT = 26;
/** px between rows and round them. */
export const BAR_GAP = 3;
export const laneHeight = (rows: number): number => rows * (BAR_HEIGHT + BAR_GAP) + BAR_GAP;

/** The part of a level's time that is in view: its first frame, and how many px a frame is. */
export interface InView {
  readonly from: number;
  readonly perFrame: number;
}

function drawBar(
  context: CanvasRenderingContext2D,
  doc: ShotDocument,
  bar: Bar,
  view: InView,
  width: number,
  length: number,
  isSelected: boolean,
): void {
  const { placement, element } = bar;
  const [left, right] = [bar.from, bar.to].map((frame) => (frame - view.from) * view.perFrame) as [number, number];
  if (right < 0 || left > width) return;
  const top = BAR_GAP + bar.row * (BAR_HEIGHT + BAR_GAP);
  context.save();
  context.beginPath();
  context.roundRect(left, top, Math.max(3, right - left), BAR_HEIGHT, 6);
  context.fillStyle = isSelected ? '#3a3128' : '#2a231d';
  context.fill();
  context.clip();
  context.globalAlpha = placement.visible ? 1 : 0.35;
  const place = {
    left: -view.from * view.perFrame,
    perFrame: view.perFrame,
    top,
    height: BAR_HEIGHT,
    from: Math.max(bar.from, Math.floor(view.from)),
    to: Math.min(bar.to, Math.ceil(view.from + width / view.perFrame) + 1),
    pixel: devicePixelRatio,
  };
  const all = timedLayers(doc, element);
  const layers = placement.layers ? all.filter(({ layer }) => placement.layers!.includes(layer.id)) : all;
  drawDrawings(context, { doc, element, placement, length: bar.length, layers }, place);
  // Told by its own speed, from where its first frame would lie.
  const { over, of } = placement.speed;
  const perOwn = (view.perFrame * of) / over;
  const first = left - placement.phase * perOwn;
  const name = nameOfUse(doc, placement).length * LETTER + NAME_AT;
  drawPhases(context, element, { left: first, perFrame: perOwn, top, height: BAR_HEIGHT }, left + name);
  context.restore();
  if (cutOff(placement, element, bar.length, length)) {
    context.fillStyle = '#e6b450';
    context.fillRect(Math.min(width, right) - 3, top + 4, 3, BAR_HEIGHT - 8);
  }
  if (!isSelected) return;
  context.beginPath();
  context.roundRect(left + 0.75, top + 0.75, Math.max(2, right - left - 1.5), BAR_HEIGHT - 1.5, 6);
  context.strokeStyle = '#ffc25c';
  context.lineWidth = 1.5;
  context.stroke();
}

interface LaneCanvasProps {
  readonly doc: ShotDocument;
  readonly lane: Lane;
  readonly view: InView;
  readonly width: number;
  /** Frames of the level. */
  readonly length: number;
  readonly selected: readonly string[];
}

/** What a bar's pictures are made of: as long as it is the same, so are they. */
function madeOf(doc: ShotDocument, { placement, element, length, from, to, row }: Bar): unknown[] {
  const timed = timedLayers(doc, element).flatMap(({ layer, list, folder }) => [
    layer,
    list,
    folder,
    ...Object.values(layer.slots).map((id) => doc.entities[id]),
  ]);
  return [placement, element, length, from, to, row, nameOfUse(doc, placement), ...timed];
}

const isSame = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((each, i) => each === b[i]);

/** Whether a lane shows the same: most edits of a shot are of something else. */
const showsSame = (a: LaneCanvasProps, b: LaneCanvasProps): boolean =>
  isSame(
    [a.view.from, a.view.perFrame, a.width, a.length, a.selected, a.lane.rows, coloursIn(a.doc)],
    [b.view.from, b.view.perFrame, b.width, b.length, b.selected, b.lane.rows, coloursIn(b.doc)],
  ) &&
  isSame(
    a.lane.bars.flatMap((bar) => madeOf(a.doc, bar)),
    b.lane.bars.flatMap((bar) => madeOf(b.doc, bar)),
  );

export const LaneCanvas = memo(function LaneCanvas({ doc, lane, view, width, length, selected }: LaneCanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const height = laneHeight(lane.rows);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const pixel = devicePixelRatio;
    context.setTransform(pixel, 0, 0, pixel, 0, 0);
    context.clearRect(0, 0, width, height);
    for (const bar of lane.bars) drawBar(context, doc, bar, view, width, length, selected.includes(bar.placement.id));
  }, [doc, lane, view, width, height, length, selected, arrivals]);
  return (
    <canvas
      ref={canvas}
      width={Math.round(width * devicePixelRatio)}
      height={Math.round(height * devicePixelRatio)}
      className="pointer-events-none absolute inset-0"
      style={{ width, height }}
    />
  );
}, showsSame);
