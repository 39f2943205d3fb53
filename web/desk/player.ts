/** Plays the active element in a loop against the clock, from frames drawn once each. */
import type { Matrix } from '@tallow/core/geometry';
import { ByteCache, frameKey, sheetsOf } from '@tallow/core/render';
import { dueFrame, RateMeter } from '@tallow/core/timing';
import { shotOf } from '@tallow/core/document';
import { current } from '../state/current.ts';
import { desk, setDesk } from '../state/desk.ts';
import { useDocument } from '../state/document.ts';
import { painter } from '../workers/painter-client.ts';

/** The neutral surround of the picture, as in the style sheet. */
const SURROUND = '#232323';
const FRAME_BYTES = 256 * 1024 * 1024;

export class Player {
  private readonly frames = new ByteCache<ImageBitmap>(FRAME_BYTES, (bitmap) => {
    bitmap.close();
  });
  private stamp = '';
  private keys: string[] = [];
  private run = 0;

  constructor(
    private readonly showFrame: (bitmap: ImageBitmap, opaque: boolean) => void,
    private readonly place: () => { width: number; height: number; view: Matrix },
  ) {}

  /** Works out which frames of the element look alike; forgets pictures of another document or view. */
  private prepare(): { length: number; start: number; rate: number } | null {
    const now = current();
    if (!now) return null;
    const { width, height, view } = this.place();
    const stamp = `${useDocument.getState().serial}|${width}x${height}|${view.join()}`;
    const start = now.placement?.start ?? 0;
    if (stamp !== this.stamp) {
      this.frames.clear();
      this.stamp = stamp;
      this.keys = Array.from({ length: now.length }, (_, frame) =>
        frameKey(sheetsOf(now.doc, start + frame, { guides: true })),
      );
    }
    return { length: now.length, start, rate: shotOf(now.doc).rate };
  }

  /** The desk's surround behind frames with a background: such frames cover everything and are shown without clearing. */
  private under(): string | null {
    const { doc } = useDocument.getState();
    return doc && shotOf(doc).background !== null ? SURROUND : null;
  }

  private async picture(frame: number, start: number): Promise<ImageBitmap | null> {
    const stamp = this.stamp;
    const key = this.keys[frame] ?? '';
    const kept = this.frames.get(key);
    if (kept) return kept;
    const { width, height, view } = this.place();
    const bitmap = await painter().frame(width, height, view, start + frame, this.under());
    if (stamp !== this.stamp) {
      bitmap.close();
      return null;
    }
    this.frames.set(key, bitmap, width * height * 4);
    return bitmap;
  }

  /** Plays until `stop`. Frames not drawn in time are left out; the beat is kept. */
  async play(): Promise<void> {
    this.run += 1;
    const run = this.run;
    const setup = this.prepare();
    if (!setup) return;
    const { start } = setup;
    setDesk({ playing: true, reached: null });
    const from = desk().frame % setup.length;
    // The first frame is there before the clock starts; the others are drawn ahead of it.
    await this.picture(from, start);
    void this.drawAhead(run, from, setup.length, start);
    const meter = new RateMeter();
    const began = performance.now();
    let shown = -1;
    let told = 0;
    const tick = (time: number): void => {
      if (run !== this.run) return;
      const now = current();
      const again = this.prepare();
      if (!now || !again) return;
      const frame = dueFrame(time - began, again.rate, from, again.length);
      const bitmap = this.frames.get(this.keys[frame] ?? '');
      if (frame !== shown && bitmap) {
        this.showFrame(bitmap, this.under() !== null);
        shown = frame;
        meter.note(time);
        setDesk({ frame });
        if (time - told > 500) {
          told = time;
          setDesk({ reached: meter.rate() });
        }
      } else if (!bitmap) {
        void this.picture(frame, start);
      }
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  private async drawAhead(run: number, from: number, length: number, start: number): Promise<void> {
    for (let i = 1; i < length && run === this.run; i++) await this.picture((from + i) % length, start);
  }

  stop(): void {
    this.run += 1;
    setDesk({ playing: false });
  }
}
