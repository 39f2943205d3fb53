/** What the camera takes in, as a thin broken line while the picture is still, and the safe areas within it. */
import { depthMatrix, isAtRest } from '@tallow/core/assembly';
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { apply, invert, multiply, IDENTITY, type Matrix } from '@tallow/core/geometry';
import { useShowing } from '../picture/showing.ts';
import { usePlayback } from '../playback/playback.ts';
import { shotFrameNow, useShotTime } from '../playback/shot-time.ts';
import { useSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import { viewMatrix } from '../view/view.ts';
import { useViewed } from '../view/viewed.ts';

/** Shares of the frame in which what happens, and lettering, is seen on every screen (SMPTE ST 2046-1). */
const SAFE = [0.93, 0.9] as const;

/** The outline of a part of the frame about its middle. */
function part(doc: ShotDocument, matrix: Matrix, share: number): string {
  const { width, height } = shotOf(doc);
  const [x, y] = [(width * (1 - share)) / 2, (height * (1 - share)) / 2];
  const corners = [
    { x, y },
    { x: width - x, y },
    { x: width - x, y: height - y },
    { x, y: height - y },
  ].map((p) => apply(matrix, p));
  return `M${corners.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`;
}

/** A line that is seen on light and on dark. */
function Outline({ d, dashed = false }: { d: string; dashed?: boolean }) {
  return (
    <>
      <path d={d} fill="none" stroke="#14110f" strokeOpacity={0.55} strokeWidth={2.5} />
      <path d={d} fill="none" stroke="#f4ecdf" strokeOpacity={0.75} strokeDasharray={dashed ? '6 5' : undefined} />
    </>
  );
}

export function CameraFrame({ assembling }: { assembling: boolean }) {
  const doc = useDocument((s) => s.doc);
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const { filming, safe } = useShowing();
  const playing = usePlayback((s) => s.playing);
  useShotTime((s) => s.frame);
  useSelection((s) => s.frame);
  useSelection((s) => s.turn);
  if (!doc || area.width === 0 || playing) return null;
  // Through the camera its frame is the picture's own; the tool of the camera draws the frame it moves.
  const isStill = !assembling || filming;
  const moves = isStill && !isAtRest(shotOf(doc));
  if (!safe && (!moves || filming)) return null;
  const outward = viewMatrix(view, shotOf(doc), area);
  const seen = multiply(outward, moves ? invert(depthMatrix(doc, 0, shotFrameNow())) : IDENTITY);
  return (
    <svg className="pointer-events-none absolute inset-0 size-full" data-testid="camera-frame">
      {moves && !filming ? <Outline d={part(doc, seen, 1)} dashed /> : null}
      {safe ? SAFE.map((share) => <Outline key={share} d={part(doc, seen, share)} />) : null}
    </svg>
  );
}
