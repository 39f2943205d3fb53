/**
 * Draws frames before they are played: those from the playhead on first, the loop before all else, by painters side by
 * side, and only while nothing is drawn. Whatever changes, what is still right stays.
 */
import { drawingsOn } from '@tallow/core/assembly';
import { shotOf } from '@tallow/core/document';
import { useDocument } from '../shot/document.ts';
import { current, type Current } from '../selection/current.ts';
import type { PlaybackFrame } from '../playback/program.ts';
import type { Frames } from './frames.ts';
import { useReady } from './ready.ts';

/** Painters that draw frames side by side. */
export const LANES = 2;
/** Frames in a row that go to the same painter: most drawings are held for two, and each painter keeps what it has drawn. */
const IN_A_ROW = 2;
/** Frames asked of each of them at once while something is moved: it draws one while the page takes the other and asks for the next. */
const DEPTH_MOVING = 2;
/** ms without a change before anything is drawn ahead, by one painter and by the others: the hand may be about to go on. */
const QUIET_MS = 400;
const LATER_MS = 1600;
/** How much longer a painter rests than it draws while nobody waits for it: until the others join in, and from then on. */
const [RESTS, RESTS_LATER] = [1, 0.25] as const;
/** ms of looking for what is not there yet, before others have their turn. */
const SLICE_MS = 6;
const TELL_MS = 120;
/** ms after which is looked again what the playhead needs, where what is played does not fit all at once. */
const AGAIN_MS = 40;
/** How many frames are drawn ahead while something is moved: the next move makes them stale. */
const MOVING_FRAMES = 12;

const whenFree = (): Promise<void> => new Promise((next) => setTimeout(next));

/** Whether a frame shows drawings that are not here yet: it would have to be drawn again. */
function lacksDrawings(now: Current, { shotFrame }: PlaybackFrame): boolean {
  const { missing } = useDocument.getState();
  return missing.size > 0 && drawingsOn(now.doc, shotFrame).some((id) => missing.has(id));
}

export class Ahead {
  private run = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private told = 0;
  /** When something was last changed, ms of the page's clock. */
  private changed = 0;
  /** ms that a frame took to draw of late, and how far from that it mostly was: while it plays, those are drawn that can still be there in time. */
  private takes = 0;
  private strays = 0;
  /** Lanes in which frames are drawn while it plays, each with the run it belongs to; those past the painters' number ask a painter for a second one. */
  private readonly urgent = new Map<number, number>();
  /** Whether all that would be played can be kept at once. */
  private fits = true;

  /**
   * @param program what would be played now, and where in it the playhead is.
   * @param mayDraw whether neither pen nor picture needs the machine.
   * @param isPlaying whether frames are waited for.
   */
  constructor(
    private readonly frames: Frames,
    private readonly program: (now: Current) => {
      readonly playbackFrames: readonly PlaybackFrame[];
      readonly from: number;
    },
    private readonly mayDraw: () => boolean,
    private readonly isPlaying: () => boolean,
  ) {}

  /** Begins anew a moment after the last change; at once while it plays, where what is under way sees the change by itself. */
  nudge(): void {
    if (this.isPlaying()) {
      this.hurryAll();
      return;
    }
    this.run += 1;
    this.changed = performance.now();
    this.wait(0);
  }

  private wait(lane: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(
      () => {
        if (!this.mayDraw()) {
          this.nudge();
          return;
        }
        void this.work(this.run, lane);
        if (lane + 1 < LANES) this.wait(lane + 1);
      },
      lane === 0 ? QUIET_MS : LATER_MS,
    );
  }

  /** Begins at once, as for playing. */
  begin(): void {
    this.run += 1;
    clearTimeout(this.timer);
    this.hurryAll();
  }

  private hurryAll(): void {
    const depth = this.frames.isMoving ? DEPTH_MOVING : 1;
    for (let lane = 0; lane < LANES * depth; lane++) this.hurry(lane);
  }

  /** Whether frames that are played are still being drawn. */
  get isBehind(): boolean {
    return this.isPlaying() && this.urgent.size > 0;
  }

  /** Lets a painter draw what is played, where it does not yet: one that found nothing left to do has ended. */
  private hurry(lane: number): void {
    const { run, urgent } = this;
    if (urgent.get(lane) === run) return;
    urgent.set(lane, run);
    void this.work(run, lane, true).finally(() => {
      if (urgent.get(lane) === run) urgent.delete(lane);
    });
  }

  stop(): void {
    this.run += 1;
    clearTimeout(this.timer);
  }

  /** @param urgent whether it goes on whatever else is done. */
  private async work(run: number, lane: number, urgent = false): Promise<void> {
    for (;;) {
      if (!urgent && !this.mayDraw()) {
        this.nudge();
        return;
      }
      const next = await this.missing(run, lane % LANES, urgent);
      if (run !== this.run || (lane >= LANES && !this.frames.isMoving)) return;
      if (!next) {
        if (!urgent || this.fits || !this.isPlaying()) return;
        await new Promise((again) => setTimeout(again, AGAIN_MS));
        continue;
      }
      const now = current();
      if (!now) return;
      const began = performance.now();
      await this.frames.draw(now, next, lane % LANES);
      this.noteTaken(performance.now() - began);
      this.tellSoon(run);
      // While nobody waits for it half of a core is enough at first: the next stroke or step finds it free.
      const rests = performance.now() - this.changed < LATER_MS ? RESTS : RESTS_LATER;
      if (!urgent) await new Promise((rest) => setTimeout(rest, rests * (performance.now() - began)));
    }
  }

  private noteTaken(ms: number): void {
    this.strays += (Math.abs(ms - this.takes) - this.strays) / 4;
    this.takes += (ms - this.takes) / 4;
  }

  /** The next frame that is not there and that nobody draws: of this painter's, or where it has none left, of another's. */
  private async missing(run: number, painter: number, urgent: boolean): Promise<PlaybackFrame | null> {
    let began = performance.now();
    const now = current();
    if (!now) return null;
    const { playbackFrames, from } = this.program(now);
    const { room } = this.frames;
    const { isMoving } = this.frames;
    // About half of all frames take longer than the mean: what comes too late has been drawn for nothing.
    const lead = urgent ? Math.ceil(((this.takes + this.strays) * shotOf(now.doc).rate) / 1000) : 0;
    // Frames that look alike are one: so many that look different are kept.
    const seen = new Set<string>();
    let anothers: { readonly playbackFrame: PlaybackFrame; readonly at: number } | null = null;
    const end = lead + (isMoving ? Math.min(MOVING_FRAMES, playbackFrames.length) : playbackFrames.length);
    for (let i = lead; i < end && seen.size < room; i++) {
      if (performance.now() - began > SLICE_MS) {
        if (anothers) break;
        await whenFree();
        if (run !== this.run) return null;
        began = performance.now();
      }
      const playbackFrame = playbackFrames[(from + i) % playbackFrames.length]!;
      // Before it is worked out what it shows: while a large shot comes in, most frames lack something.
      if (lacksDrawings(now, playbackFrame)) continue;
      const key = this.frames.keyOf(now, playbackFrame);
      if (seen.has(key)) continue;
      seen.add(key);
      if (this.frames.get(now, playbackFrame) || this.frames.isUnderWay(now, playbackFrame)) continue;
      if (isMoving && this.frames.isThereSoft(now, playbackFrame)) continue;
      if (Math.floor(playbackFrame.shotFrame / IN_A_ROW) % LANES === painter) return playbackFrame;
      anothers ??= { playbackFrame, at: i };
      // Its own come by turns with the other's: farther on there is none that would be needed soon.
      if (i >= anothers.at + IN_A_ROW * LANES) break;
    }
    if (anothers) return anothers.playbackFrame;
    // What is drawn softer is drawn anew when nothing is moved any more.
    this.fits = seen.size < room && !isMoving;
    if (this.fits) this.tell(now, playbackFrames);
    else this.tellSoon(run);
    return null;
  }

  private tellSoon(run: number): void {
    if (performance.now() - this.told < TELL_MS) return;
    const now = current();
    if (!now || run !== this.run) return;
    const { playbackFrames, from } = this.program(now);
    const { room } = this.frames;
    const seen = new Set<string>();
    // After an edit it has to be worked out for each frame anew what it shows: that is done bit by bit while looking for what is missing.
    for (let i = 0; i < playbackFrames.length && seen.size < room; i++) {
      const playbackFrame = playbackFrames[(from + i) % playbackFrames.length]!;
      if (!this.frames.isKnown(now, playbackFrame)) return;
      seen.add(this.frames.keyOf(now, playbackFrame));
    }
    this.tell(now, playbackFrames);
  }

  /** Says which frames are there. */
  tell(now: Current, playbackFrames: readonly PlaybackFrame[]): void {
    this.told = performance.now();
    const there = playbackFrames.filter(
      (playbackFrame) => this.frames.isKnown(now, playbackFrame) && this.frames.isThere(now, playbackFrame),
    );
    const ofShot = playbackFrames[0]?.ofShot === true;
    const found = [
      ...new Set(there.map((playbackFrame) => (ofShot ? playbackFrame.shotFrame : playbackFrame.frame))),
    ].sort((a, b) => a - b);
    const [frames, shotFrames] = ofShot ? [[], found] : [found, []];
    const before = useReady.getState();
    const isSame =
      before.elementId === now.element.id &&
      before.frames.join() === frames.join() &&
      before.shotFrames.join() === shotFrames.join();
    if (!isSame) useReady.setState({ elementId: now.element.id, frames, shotFrames });
  }
}
