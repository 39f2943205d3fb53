/** The loop itself, small and always running if wanted, with the stroke under the pen; and where the playhead is. */
import { shotOf } from '@tallow/core/document';
import { fitInto, invert, mapBox, type Box } from '@tallow/core/geometry';
import { Scratch, type Surface } from '@tallow/core/render';
import { secondsText } from '@tallow/core/timing';
import { useEffect, useRef } from 'react';
import { homeMatrix, shotFrameOf, shownNow, type Current } from '../selection/current.ts';
import { playback, usePlayback } from '../playback/playback.ts';
import { runSmallLoop } from '../playback/small-loop.ts';
import { selection, useSelection } from '../selection/selection.ts';
import { boxOfLayers, miniature, movingOf, sheetsAt, useArrivals } from '../picture/miniatures.ts';
import { heldFor } from '../time/time-edits.ts';
import { openEngine } from '../picture/open-engine.ts';
import { makeSurface } from '../workers/surfaces.ts';

interface Small {
  /** The part of element space that is shown. */
  readonly box: Box;
  /** A frame as a small picture, still layers left out; undefined where nothing shows or it is being drawn. */
  readonly pictureOf: (frame: number) => ImageBitmap | undefined;
}

function smallOf(now: Current, side: number): Small {
  const moving = movingOf(now.layers);
  const { width, height } = shotOf(now.doc);
  const drawn = boxOfLayers(
    now.doc,
    moving.map(({ layer }) => layer),
  );
  const box = drawn ?? mapBox(invert(homeMatrix(now, 0)), { left: 0, top: 0, right: width, bottom: height });
  const pictureOf = (frame: number) => {
    const sheets = sheetsAt(moving, now.element, frame, now.length);
    return sheets.length > 0 ? miniature(now.doc, sheets, box, side, side) : undefined;
  };
  return { box, pictureOf };
}

/** @param size CSS px of its square. */
export function Loop({ now, size }: { now: Current; size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const arrivals = useArrivals((s) => s.count);
  const side = Math.round(size * devicePixelRatio);

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!canvas.current || !context) return undefined;
    const hub = {
      width: side,
      height: side,
      picture: canvas.current,
      context: context as unknown as Surface['context'],
    };
    const scratch = new Scratch(makeSurface);
    const { pictureOf, box } = smallOf(now, side);
    const matrix = fitInto(box, side, side);
    const { rate } = shotOf(now.doc);
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    let shown: ImageBitmap | undefined | null = null;
    let shownFrame = -1;
    let picture: ImageBitmap | undefined;
    return runSmallLoop((time) => {
      const { playing, hubRuns, speed } = playback();
      const { frame } = selection();
      const own = playing || calm || !hubRuns;
      const at = (own ? frame : Math.floor((time * rate * speed) / 1000)) % now.length;
      if (at !== shownFrame) {
        shownFrame = at;
        picture = pictureOf(at);
        // The next one is asked for ahead, so that it is there when it is due.
        pictureOf((at + 1) % now.length);
      }
      const live = openEngine()?.compositor.live;
      const growsHere =
        live && shownNow(now, at)?.drawingId === shownNow(now, Math.min(frame, now.length - 1))?.drawingId;
      if (picture !== shown || live) {
        shown = picture;
        context.setTransform(1, 0, 0, 1, 0, 0);
        context.clearRect(0, 0, side, side);
        if (picture) context.drawImage(picture, 0, 0);
        if (growsHere) live.sketch(hub, scratch, matrix);
      }
      if (live || playing) return 'refresh';
      // One that is still being drawn is looked for again.
      return own || !picture ? 'follows' : rate * speed;
    });
  }, [now, arrivals, side]);

  return <canvas ref={canvas} width={side} height={side} style={{ width: size, height: size }} data-testid="loop" />;
}

/** Which frame of the element, where that is in the shot and in which turn, and how long the drawing is held. */
/** @param brief frame and length alone, large enough to be read on a small wheel. */
export function WhereText({ now, brief = false }: { now: Current; brief?: boolean }) {
  const frame = useSelection((s) => Math.min(s.frame, now.length - 1));
  const turn = useSelection((s) => s.turn);
  const playing = usePlayback((s) => s.playing);
  const reached = usePlayback((s) => s.reached);
  const speed = usePlayback((s) => s.speed);
  const { rate } = shotOf(now.doc);
  const held = heldFor(now, frame);
  const target = rate * speed;
  const under = playing
    ? `${reached === null ? '…' : reached.toFixed(1)} of ${target}`
    : held
      ? `${held} f · ${secondsText(held, rate)}`
      : 'empty';
  const inShot = shotFrameOf(now, frame, turn) + 1;
  const where = now.element.time === 'cycle' && now.turns > 1 ? `shot ${inShot} · turn ${turn + 1}` : `shot ${inShot}`;
  return (
    <>
      <div className={`font-mono leading-none text-wax-100 ${brief ? 'text-base' : 'text-xs'}`} data-testid="frame-of">
        {frame + 1} <span className="text-wax-500">of {now.length}</span>
      </div>
      <div
        hidden={brief}
        className="mt-[3px] whitespace-nowrap font-mono text-[9px] leading-none text-wax-300"
        data-testid="hub-where"
      >
        {where.length > 17 ? where.replace('shot ', '') : where}
      </div>
      <div
        hidden={brief}
        className="mt-[3px] whitespace-nowrap font-mono text-[9px] leading-none text-wax-500"
        data-testid="hub-under"
      >
        {under}
      </div>
    </>
  );
}
