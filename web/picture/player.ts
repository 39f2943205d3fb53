/** Plays the active element or the shot against a clock, turn after turn, from frames drawn once each. */
import { shotOf } from '@tallow/core/document';
import { dueFrame, RateMeter } from '@tallow/core/timing';
import { playback, setPlayback, stopPlaying } from '../playback/playback.ts';
import { programOf, type PlaybackFrame } from '../playback/program.ts';
import { goToShotFrame, playsShot, shotFrameNow, shotTime } from '../playback/shot-time.ts';
import { current, type Current } from '../selection/current.ts';
import { selectedNow } from '../selection/to-edit.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { useDocument } from '../shot/document.ts';
import { WallClock, type Played, type PlayClock } from '../sound/clock.ts';
import { Ahead } from './ahead.ts';
import { Frames, type FrameScreen } from './frames.ts';

export interface PlayerScreen extends FrameScreen {
  readonly show: (bitmap: ImageBitmap, opaque: boolean) => void;
  /** Whether neither pen nor picture needs the machine. */
  readonly mayDraw: () => boolean;
}

export class Player {
  private readonly frames: Frames;
  readonly ahead: Ahead;
  private played = '';
  private program: PlaybackFrame[] = [];
  /** The frames of the shot of its beats; the same list for as long as they are the same. */
  private shotFrames: readonly number[] = [];
  private run = 0;
  /** Where in the program it plays, while it does. */
  private position: number | null = null;

  constructor(
    private readonly screen: PlayerScreen,
    private readonly clock: PlayClock = new WallClock(),
  ) {
    this.frames = new Frames(screen);
    this.ahead = new Ahead(
      this.frames,
      (now) => {
        this.follow(now);
        return { playbackFrames: this.program, from: this.position ?? Math.max(0, this.here()) };
      },
      screen.mayDraw,
      () => playback().playing,
    );
  }

  /** Notes that something was edited here. */
  noteEdit(): void {
    this.frames.noteEdit();
  }

  /** Follows what is to be played. */
  private follow(now: Current): void {
    const { range, playsSelected, pingPong, inTurn } = playback();
    const shot = playsShot();
    const { selectedRuns } = selection();
    const { serial } = useDocument.getState();
    const played = JSON.stringify([
      serial,
      now.place,
      now.element.id,
      shot,
      range,
      playsSelected && selectedRuns,
      pingPong,
      inTurn,
    ]);
    if (played === this.played) return;
    this.program = programOf(now, { ...playback(), turn: selection().turn, shot }, selectedNow());
    const frames = this.program.map(({ shotFrame }) => shotFrame);
    if (frames.join() !== this.shotFrames.join()) this.shotFrames = frames;
    this.played = played;
  }

  private here(): number {
    const { frame, turn } = selection();
    const shotFrame = shotFrameNow();
    return this.program.findIndex((playbackFrame) =>
      playbackFrame.ofShot || shotTime().on
        ? playbackFrame.shotFrame === shotFrame
        : playbackFrame.frame === frame && playbackFrame.turn === turn,
    );
  }

  /**
   * Plays until `stop`, or to the end if it does not loop. Frames not drawn in time are left out; the beat
   * is kept.
   */
  async play(loops = playback().loops): Promise<void> {
    this.run += 1;
    const { run } = this;
    const first = current();
    if (!first) return;
    this.follow(first);
    const at = this.here();
    const last = this.program.length - 1;
    // Played once from the very end, it would be over at once: it begins again.
    const from = at >= 0 && (loops || at < last) ? at : 0;
    setPlayback({ playing: true, reached: null });
    this.position = from;
    // The first frame is there before the clock starts; the others are drawn ahead of it.
    this.ahead.begin();
    const playedIn = ({ doc: now }: Current): Played => {
      const { speed } = playback();
      return { doc: now, frames: this.shotFrames, from, rate: shotOf(now).rate, speed, loops };
    };
    await Promise.all([this.frames.draw(first, this.program[from]!, 0), this.clock.ready(playedIn(first))]);
    if (run !== this.run) return;
    const meter = new RateMeter();
    this.clock.begin(playedIn(current() ?? first), performance.now());
    let shown = -1;
    let told = 0;
    let doc = first.doc;
    const tick = (time: number): void => {
      if (run !== this.run) return;
      if (!playback().playing) {
        this.clock.end();
        return;
      }
      const now = current();
      if (!now) return;
      this.follow(now);
      // What an edit made stale, or what came in, is drawn while it plays on.
      if (now.doc !== doc) this.ahead.nudge();
      ({ doc } = now);
      const { length } = this.program;
      const played = playedIn(now);
      const elapsed = this.clock.elapsed(played, time);
      const rate = played.rate * played.speed;
      if (!loops && Math.floor((elapsed * rate) / 1000) + from >= length) {
        this.stop();
        // However slow the machine was, it ends on the last frame.
        this.tell(this.program[length - 1]!);
        return;
      }
      const position = dueFrame(elapsed, rate, from, length);
      this.position = position;
      const playbackFrame = this.program[position]!;
      const bitmap = position === shown ? undefined : this.frames.due(now, playbackFrame);
      if (bitmap) {
        this.screen.show(bitmap, this.frames.under(now) !== null);
        shown = position;
        meter.note(time);
        this.tell(playbackFrame);
        if (time - told > 500) {
          told = time;
          setPlayback({ reached: meter.rate() });
        }
      }
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  /** Moves the playhead to what is shown. */
  private tell({ shotFrame, frame, turn, ofShot }: PlaybackFrame): void {
    if (ofShot || shotTime().on) goToShotFrame(shotFrame);
    else setSelection({ frame, turn });
  }

  stop(): void {
    this.run += 1;
    this.position = null;
    this.clock.end();
    stopPlaying();
    this.ahead.nudge();
  }

  /** Ends for good, when the picture is left. */
  close(): void {
    this.stop();
    this.ahead.stop();
  }
}
