/** Plays the active element against the clock, turn after turn, from frames drawn once each. */
import type { Matrix } from '@tallow/core/geometry';
import { ByteCache, frameKey, platesAt, sheetsOf, type SheetOptions } from '@tallow/core/render';
import { dueFrame, RateMeter } from '@tallow/core/timing';
import { shotOf } from '@tallow/core/document';
import { current, type Current } from '../selection/current.ts';
import { showing } from './showing.ts';
import { playback, setPlayback, stopPlaying } from '../playback/playback.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import type { Painter } from '../workers/painter.ts';
import { programOf, type Beat } from '../playback/program.ts';
import { pickedNow } from '../selection/in-hand.ts';

/** The neutral surround of the picture, as in the style sheet. */
const SURROUND = '#232323';
const FRAME_BYTES = 256 * 1024 * 1024;

/** What of the shot the desk shows now. */
export function sightOptions(now: Current): SheetOptions {
  const { alone, dimOthers, without, looks } = showing();
  const { playing, playsLayers } = playback();
  const { picked } = selection();
  const wanted = new Set([now.active?.layer.id, ...(picked?.also ?? [])]);
  const others =
    playing && playsLayers ? now.layers.flatMap(({ layer }) => (wanted.has(layer.id) ? [] : [layer.id])) : [];
  return {
    guides: true,
    alone,
    without: [...without, ...others],
    dimBut: dimOthers ? (now.active?.layer.id ?? null) : null,
    looks: !looks ? 'none' : playing ? 'all' : 'for drawing',
  };
}

/** Where frames are drawn and shown. */
export interface PlayerScreen {
  readonly show: (bitmap: ImageBitmap, opaque: boolean) => void;
  /** Size in device pixels and the map from shot px to them. */
  readonly place: () => { width: number; height: number; view: Matrix };
  readonly draw: (...asked: Parameters<Painter['frame']>) => Promise<ImageBitmap>;
}

export class Player {
  private readonly frames = new ByteCache<ImageBitmap>(FRAME_BYTES, (bitmap) => {
    bitmap.close();
  });
  private stamp = '';
  private played = '';
  private readonly keys = new Map<string, string>();
  private program: Beat[] = [];
  private run = 0;

  constructor(private readonly screen: PlayerScreen) {}

  /** Forgets pictures of another document or view. */
  private prepare(): Current | null {
    const now = current();
    if (!now) return null;
    const { width, height, view } = this.screen.place();
    const { backdrop } = showing();
    const seen = `${JSON.stringify(sightOptions(now))}|${backdrop}`;
    const stamp = `${useDocument.getState().serial}|${width}x${height}|${view.join()}|${seen}`;
    if (stamp !== this.stamp) {
      this.frames.clear();
      this.keys.clear();
      this.stamp = stamp;
    }
    const { range, playsPicked, pingPong, inTurn } = playback();
    const { picked } = selection();
    const played = JSON.stringify([stamp, now.element.id, range, playsPicked && picked, pingPong, inTurn]);
    if (played !== this.played) {
      this.program = programOf(now, { ...playback(), turn: selection().turn }, pickedNow());
      this.played = played;
    }
    return now;
  }

  /** Frames of the shot that look alike have the same key. */
  private keyAt(now: Current, { shotFrame, variant }: Beat): string {
    const name = `${shotFrame}@${variant}`;
    let key = this.keys.get(name);
    if (key === undefined) {
      const plates = platesAt(now.doc, shotFrame, true).map(({ plate, asset }) => `${plate.id}@${asset}`);
      key = `${plates.join()}|${frameKey(sheetsOf(now.doc, shotFrame, { ...sightOptions(now), variant }))}`;
      this.keys.set(name, key);
    }
    return key;
  }

  /** The desk's surround behind frames with a background: such frames cover everything and are shown without clearing. */
  private under(): string | null {
    const { doc } = useDocument.getState();
    return doc && (shotOf(doc).background ?? showing().backdrop) !== null ? SURROUND : null;
  }

  private async picture(now: Current, beat: Beat): Promise<ImageBitmap | null> {
    const stamp = this.stamp;
    const key = this.keyAt(now, beat);
    const kept = this.frames.get(key);
    if (kept) return kept;
    const { width, height, view } = this.screen.place();
    const options = { ...sightOptions(now), variant: beat.variant, backdrop: showing().backdrop };
    const bitmap = await this.screen.draw(width, height, view, beat.shotFrame, this.under(), options);
    if (stamp !== this.stamp) {
      bitmap.close();
      return null;
    }
    this.frames.set(key, bitmap, width * height * 4);
    return bitmap;
  }

  /**
   * Plays until `stop`, or to the end if it does not loop. Frames not drawn in time are left out; the beat
   * is kept.
   */
  async play(loops = playback().loops): Promise<void> {
    this.run += 1;
    const run = this.run;
    const first = this.prepare();
    if (!first) return;
    const { frame, turn } = selection();
    const last = this.program.length - 1;
    const at = this.program.findIndex((beat) => beat.frame === frame && beat.turn === turn);
    // Played once from the very end, it would be over at once: it begins again.
    const from = at >= 0 && (loops || at < last) ? at : 0;
    setPlayback({ playing: true, reached: null });
    this.prepare();
    // The first frame is there before the clock starts; the others are drawn ahead of it.
    await this.picture(first, this.program[from]!);
    void this.drawAhead(run, from);
    const meter = new RateMeter();
    const start = performance.now();
    let shown = -1;
    let told = 0;
    const tick = (time: number): void => {
      if (run !== this.run || !playback().playing) return;
      const now = this.prepare();
      if (!now) return;
      const { length } = this.program;
      const rate = shotOf(now.doc).rate * playback().speed;
      if (!loops && Math.floor(((time - start) * rate) / 1000) + from >= length) {
        this.stop();
        // However slow the machine was, it ends on the last frame.
        this.tell(this.program[length - 1]!);
        return;
      }
      const position = dueFrame(time - start, rate, from, length);
      const beat = this.program[position]!;
      const bitmap = this.frames.get(this.keyAt(now, beat));
      if (position !== shown && bitmap) {
        this.screen.show(bitmap, this.under() !== null);
        shown = position;
        meter.note(time);
        this.tell(beat);
        if (time - told > 500) {
          told = time;
          setPlayback({ reached: meter.rate() });
        }
      } else if (!bitmap) {
        void this.picture(now, beat);
      }
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  /** Moves the playhead to what is shown. */
  private tell({ frame, turn }: Beat): void {
    setSelection({ frame, turn });
  }

  private async drawAhead(run: number, from: number): Promise<void> {
    for (let i = 1; i < this.program.length && run === this.run && playback().playing; i++) {
      const now = current();
      if (now) await this.picture(now, this.program[(from + i) % this.program.length]!);
    }
  }

  stop(): void {
    this.run += 1;
    stopPlaying();
  }
}
