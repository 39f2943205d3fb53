/**
 * Whole frames for playing, each drawn once and kept by everything that is seen in it: an edit makes only those frames stale
 * that show what it changed. Several painters draw them side by side.
 */
import { find, shotOf } from '@tallow/core/document';
import { ByteCache, frameKey, platesAt, drawListOf } from '@tallow/core/render';
import { current, type Current } from '../selection/current.ts';
import type { Painter } from '../workers/painter.ts';
import { playback } from '../playback/playback.ts';
import type { PlaybackFrame } from '../playback/program.ts';
import { coloursIn, contentId } from './content.ts';
import type { PicturePlace } from './picture-place.ts';
import { showing } from './showing.ts';
import { sightOptions } from './sight.ts';

/** The neutral surround of the picture, as in the style sheet. */
const SURROUND = '#232323';
/** Bytes of frames kept at most, whoever drew them. */
const FRAME_BYTES = 256 * 1024 * 1024;

/** ms for which a picture of a moment ago is shown while something is moved. */
const LATE_MS = 800;
/** ms after an edit for which something counts as being moved. */
const MOVING_MS = 600;
/** ms a frame may take to draw for it not to be drawn softer while something is moved: two painters keep 24 a second. */
const QUICK_MS = 80;

/** A picture for a moment. */
interface LatePicture {
  readonly bitmap: ImageBitmap;
  /** What it shows. */
  readonly key: string;
  /** ms of the page's clock. */
  readonly at: number;
}

/** Where frames are drawn and shown. */
export interface FrameScreen {
  readonly place: () => PicturePlace;
  /** Draws a frame. @param lane which of the painters that work side by side. */
  readonly draw: (lane: number, ...asked: Parameters<Painter['frame']>) => Promise<ImageBitmap>;
}

export class Frames {
  private readonly kept = new ByteCache<ImageBitmap>(FRAME_BYTES, (bitmap) => {
    bitmap.close();
  });
  private readonly keys = new Map<string, string>();
  private readonly underWay = new Map<string, Promise<void>>();
  /** Pictures of frames that changed while they were drawn, or that were drawn softer: better than none for a moment, while it plays and something is moved. */
  private readonly late = new Map<number, LatePicture>();
  private edited = -Infinity;
  /** ms that a frame took to draw as it will be. */
  private takes = 0;
  private keysOf: object | null = null;
  /** Size, view and sight that frames are asked for now. */
  private stamp = '';

  constructor(private readonly screen: FrameScreen) {}

  /** How many frames of the picture's size are kept at most. */
  get room(): number {
    const { width, height } = this.screen.place();
    return Math.floor(FRAME_BYTES / (width * height * 4));
  }

  /** Notes that something was edited, ms of the page's clock. */
  noteEdit(): void {
    this.edited = performance.now();
  }

  /** Whether something is moved, so that frames are drawn softer to be there in time. */
  get isMoving(): boolean {
    return (
      playback().playing && showing().assembling && this.takes > QUICK_MS && performance.now() - this.edited < MOVING_MS
    );
  }

  /** Forgets keys of another document, size, view or sight. */
  private follow(now: Current): void {
    const { width, height, view } = this.screen.place();
    const stamp = `${width}x${height}|${view.join()}|${JSON.stringify(sightOptions(now, true))}|${showing().backdrop}`;
    if (this.keysOf !== now.doc || this.stamp !== stamp) this.keys.clear();
    if (this.stamp !== stamp) this.dropLate();
    [this.keysOf, this.stamp] = [now.doc, stamp];
  }

  /** Whether it has been worked out already what a frame shows. */
  isKnown(now: Current, { shotFrame, variant }: PlaybackFrame): boolean {
    this.follow(now);
    return this.keys.has(`${shotFrame}@${variant}`);
  }

  /** The same text for frames that look alike. */
  keyOf(now: Current, { shotFrame, variant }: PlaybackFrame): string {
    this.follow(now);
    const { stamp } = this;
    const options = sightOptions(now, true);
    const name = `${shotFrame}@${variant}`;
    let key = this.keys.get(name);
    if (key === undefined) {
      const plates = platesAt(now.doc, shotFrame, true).map(({ plate, asset }) => `${contentId(plate)}@${asset}`);
      // A drawing that a look has moved has the content of its own drawing.
      const items = frameKey(drawListOf(now.doc, shotFrame, { ...options, variant }), ({ id }) => {
        const drawing = find(now.doc, 'drawing', id.split('~')[0]);
        return `${id}.${drawing ? contentId(drawing) : ''}`;
      });
      key = `${stamp}|${contentId(shotOf(now.doc))}|${coloursIn(now.doc)}|${plates.join()}|${items}`;
      this.keys.set(name, key);
    }
    return key;
  }

  /** The picture of a frame, if it is there. */
  get(now: Current, playbackFrame: PlaybackFrame): ImageBitmap | undefined {
    return this.kept.get(this.keyOf(now, playbackFrame));
  }

  /**
   * The picture to show when a frame is due, if there is one. While something is moved only what has been drawn since counts:
   * working out what every frame shows after every move would take the painters' time.
   */
  due(now: Current, playbackFrame: PlaybackFrame): ImageBitmap | undefined {
    if (!this.isMoving) return this.get(now, playbackFrame) ?? this.recent(playbackFrame);
    return this.recent(playbackFrame) ?? (this.isKnown(now, playbackFrame) ? this.get(now, playbackFrame) : undefined);
  }

  /** Whether the picture of a frame is there, for telling; what is played next is given up last all the same. */
  isThere(now: Current, playbackFrame: PlaybackFrame): boolean {
    return this.kept.has(this.keyOf(now, playbackFrame));
  }

  /** Whether there is a picture of a frame that will do while something is moved. */
  isThereSoft(now: Current, playbackFrame: PlaybackFrame): boolean {
    return this.late.get(playbackFrame.shotFrame)?.key === this.keyOf(now, playbackFrame);
  }

  /** Not while drawing: there a stroke would be gone again for a moment. */
  private keepLate({ shotFrame }: PlaybackFrame, bitmap: ImageBitmap, key: string): void {
    this.late.get(shotFrame)?.bitmap.close();
    this.late.set(shotFrame, { bitmap, key, at: performance.now() });
    for (const [frame, { bitmap: old, at }] of this.late) {
      if (performance.now() - at < LATE_MS) continue;
      old.close();
      this.late.delete(frame);
    }
  }

  private dropLate(): void {
    for (const { bitmap } of this.late.values()) bitmap.close();
    this.late.clear();
  }

  /** A picture of a frame from a moment ago, before what is being moved went on. */
  private recent({ shotFrame }: PlaybackFrame): ImageBitmap | undefined {
    const late = this.late.get(shotFrame);
    return late && performance.now() - late.at < LATE_MS ? late.bitmap : undefined;
  }

  /** Whether somebody draws a frame now. */
  isUnderWay(now: Current, playbackFrame: PlaybackFrame): boolean {
    return this.underWay.has(this.keyOf(now, playbackFrame));
  }

  /** The desk's surround behind frames with a background: such frames cover everything and are shown without clearing. */
  under(now: Current): string | null {
    return (shotOf(now.doc).background ?? showing().backdrop) !== null ? SURROUND : null;
  }

  /** Draws a frame that is not there yet. */
  async draw(now: Current, playbackFrame: PlaybackFrame, lane: number): Promise<void> {
    const key = this.keyOf(now, playbackFrame);
    if (this.kept.get(key)) return;
    const known = this.underWay.get(key);
    if (known) {
      await known;
      return;
    }
    const work = (async () => {
      const { stamp, isMoving: moving } = this;
      const began = performance.now();
      const { width, height, view } = this.screen.place();
      const options = {
        ...sightOptions(now, true),
        variant: playbackFrame.variant,
        backdrop: showing().backdrop,
        moving,
      };
      const bitmap = await this.screen.draw(
        lane,
        width,
        height,
        view,
        playbackFrame.shotFrame,
        this.under(now),
        options,
      );
      if (!moving) this.takes += (performance.now() - began - this.takes) / 4;
      // What it shows may have changed while it was drawn: then nobody knows which of the two that is.
      const after = current();
      const isSame = after !== null && this.keyOf(after, playbackFrame) === key;
      if (isSame && !moving) this.kept.set(key, bitmap, width * height * 4);
      else if (showing().assembling && this.stamp === stamp) this.keepLate(playbackFrame, bitmap, key);
      else bitmap.close();
    })();
    this.underWay.set(key, work);
    try {
      await work;
    } finally {
      this.underWay.delete(key);
    }
  }
}
