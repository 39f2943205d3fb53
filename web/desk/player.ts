/** Plays the active element against the clock, turn after turn, from frames drawn once each. */
import { indicesOf } from '@tallow/core/edit';
import type { Matrix } from '@tallow/core/geometry';
import { ByteCache, frameKey, platesAt, sheetsOf, type SheetOptions } from '@tallow/core/render';
import { dueFrame, RateMeter, runStart } from '@tallow/core/timing';
import { shotOf } from '@tallow/core/document';
import { current, shotFrameOf, type Current } from '../state/current.ts';
import { desk, setDesk } from '../state/desk.ts';
import { useDocument } from '../state/document.ts';
import { pickedNow } from '../state/time-edits.ts';
import { painter } from '../workers/painter-client.ts';

/** The neutral surround of the picture, as in the style sheet. */
const SURROUND = '#232323';
const FRAME_BYTES = 256 * 1024 * 1024;

/** What of the shot the desk shows now. */
export function sightOptions(now: Current): SheetOptions {
  const { alone, dimOthers, without } = desk();
  return { guides: true, alone, without, dimBut: dimOthers ? (now.active?.layer.id ?? null) : null };
}

/** The stretch that is played, in frames from the first of the first turn. */
interface Stretch {
  readonly from: number;
  readonly length: number;
}

function stretchOf(now: Current): Stretch {
  const picked = desk().playsPicked ? pickedNow() : null;
  const whole = now.length * now.turns;
  if (!picked || !now.active) return { from: 0, length: whole };
  const { list } = now.active;
  const { runs } = list;
  return {
    from: desk().turn * now.length + runStart(list, picked.first, now.length),
    length: Math.min(
      whole,
      indicesOf(picked, runs.length).reduce((sum, index) => sum + runs[index]!.length, 0),
    ),
  };
}

export class Player {
  private readonly frames = new ByteCache<ImageBitmap>(FRAME_BYTES, (bitmap) => {
    bitmap.close();
  });
  private stamp = '';
  private readonly keys = new Map<number, string>();
  private run = 0;

  constructor(
    private readonly showFrame: (bitmap: ImageBitmap, opaque: boolean) => void,
    private readonly place: () => { width: number; height: number; view: Matrix },
  ) {}

  /** Forgets pictures of another document or view. */
  private prepare(): Current | null {
    const now = current();
    if (!now) return null;
    const { width, height, view } = this.place();
    const { alone, dimOthers, backdrop } = desk();
    const seen = `${alone}|${dimOthers}|${backdrop}|${now.active?.layer.id}`;
    const stamp = `${useDocument.getState().serial}|${width}x${height}|${view.join()}|${seen}`;
    if (stamp !== this.stamp) {
      this.frames.clear();
      this.keys.clear();
      this.stamp = stamp;
    }
    return now;
  }

  /** Frames of the shot that look alike have the same key. */
  private keyAt(now: Current, shotFrame: number): string {
    let key = this.keys.get(shotFrame);
    if (key === undefined) {
      const plates = platesAt(now.doc, shotFrame, true).map(({ plate, asset }) => `${plate.id}@${asset}`);
      key = `${plates.join()}|${frameKey(sheetsOf(now.doc, shotFrame, sightOptions(now)))}`;
      this.keys.set(shotFrame, key);
    }
    return key;
  }

  /** The desk's surround behind frames with a background: such frames cover everything and are shown without clearing. */
  private under(): string | null {
    const { doc } = useDocument.getState();
    return doc && (shotOf(doc).background ?? desk().backdrop) !== null ? SURROUND : null;
  }

  private async picture(now: Current, shotFrame: number): Promise<ImageBitmap | null> {
    const stamp = this.stamp;
    const key = this.keyAt(now, shotFrame);
    const kept = this.frames.get(key);
    if (kept) return kept;
    const { width, height, view } = this.place();
    const options = { ...sightOptions(now), backdrop: desk().backdrop };
    const bitmap = await painter().frame(width, height, view, shotFrame, this.under(), options);
    if (stamp !== this.stamp) {
      bitmap.close();
      return null;
    }
    this.frames.set(key, bitmap, width * height * 4);
    return bitmap;
  }

  /** The shot frame at a position of the stretch that is played. */
  private frameAt(now: Current, position: number): number {
    return shotFrameOf(now, 0, 0) + ((stretchOf(now).from + position) % (now.length * now.turns));
  }

  /** Plays until `stop`, or to the end if it does not loop. Frames not drawn in time are left out; the beat is kept. */
  async play(): Promise<void> {
    this.run += 1;
    const run = this.run;
    const first = this.prepare();
    if (!first) return;
    const began = stretchOf(first);
    const at = desk().turn * first.length + desk().frame - began.from;
    const inside = at >= 0 && at < began.length;
    // Played once from the very end, it would be over at once: it begins again.
    const from = inside && (desk().loops || at < began.length - 1) ? at : 0;
    setDesk({ playing: true, reached: null });
    // The first frame is there before the clock starts; the others are drawn ahead of it.
    await this.picture(first, this.frameAt(first, from));
    void this.drawAhead(run, from, began.length);
    const meter = new RateMeter();
    const start = performance.now();
    let shown = -1;
    let told = 0;
    const tick = (time: number): void => {
      if (run !== this.run) return;
      const now = this.prepare();
      if (!now) return;
      const { length } = stretchOf(now);
      const rate = shotOf(now.doc).rate * desk().speed;
      if (!desk().loops && Math.floor(((time - start) * rate) / 1000) + from >= length) {
        this.stop();
        // However slow the machine was, it ends on the last frame.
        this.tell(now, this.frameAt(now, length - 1));
        return;
      }
      const position = dueFrame(time - start, rate, from, length);
      const shotFrame = this.frameAt(now, position);
      const bitmap = this.frames.get(this.keyAt(now, shotFrame));
      if (position !== shown && bitmap) {
        this.showFrame(bitmap, this.under() !== null);
        shown = position;
        meter.note(time);
        this.tell(now, shotFrame);
        if (time - told > 500) {
          told = time;
          setDesk({ reached: meter.rate() });
        }
      } else if (!bitmap) {
        void this.picture(now, shotFrame);
      }
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  /** Moves the playhead to a frame of the shot. */
  private tell(now: Current, shotFrame: number): void {
    const own = shotFrame - shotFrameOf(now, 0, 0);
    setDesk({ frame: own % now.length, turn: Math.floor(own / now.length) });
  }

  private async drawAhead(run: number, from: number, length: number): Promise<void> {
    for (let i = 1; i < length && run === this.run; i++) {
      const now = current();
      if (now) await this.picture(now, this.frameAt(now, (from + i) % length));
    }
  }

  stop(): void {
    this.run += 1;
    setDesk({ playing: false });
  }
}
