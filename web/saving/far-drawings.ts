/**
 * Which drawings of a large shot the page has at hand: those around the playhead, up to so many bytes. Others are put
 * aside while nobody draws, and come back before the playhead reaches them. A shot that fits keeps all of its drawings.
 * While a shot plays nothing is read back: painters read for themselves, and the pen lands where play has stopped.
 */
import { entitiesOf, findAll, type Drawing, type Id } from '@tallow/core/document';
import { pieceNames } from '@tallow/core/between';
import { hasShape, outlinesOf, fingerprintOf } from '@tallow/core/derived';
import { swatchesOf } from '@tallow/core/edit';
import { areasOf, drawingRoom } from '@tallow/core/render';
import { drawingsNear, shownOn } from '@tallow/core/timing';
import { playback, usePlayback } from '../playback/playback.ts';
import { current } from '../selection/current.ts';
import { selection, useSelection } from '../selection/selection.ts';
import { asides } from '../shot/aside.ts';
import { onChange, useDocument } from '../shot/document.ts';
import { pictureFirst } from '../picture/open-engine.ts';
import { whenIdle } from '../workers/idle.ts';
import { latestOnly } from '../workers/latest.ts';

const MB = 1024 * 1024;
/** Marks at hand take at most so much, and on machines with little memory so much for each GB of it. */
const AT_HAND = 64 * MB;
const FOR_EACH_GB = 8 * MB;
/** Share of that which is left when drawings have been put aside, so that it is not done for each alone. */
const LEFT = 0.75;
/** Share of it that is read back around the playhead. */
const AROUND = 0.5;
/** ms after an edit, a step or an arrival until it is looked what is to be put aside. */
const REST_MS = 2000;
/** What was read back stays at hand for so long, ms: it was read for something. */
const STAY_MS = 20_000;
/** ms after which work that can wait goes on where something always wants the main thread. */
const LATEST_MS = 400;

/** Bytes that marks at hand take at most. @param gigabytes memory of the machine, as far as the browser tells. */
export const roomAtHand = (gigabytes = Infinity): number => Math.min(AT_HAND, FOR_EACH_GB * gigabytes);

/** A drawing with what its marks take, bytes. */
interface Sized {
  readonly drawing: Drawing;
  readonly size: number;
}

/**
 * Those that are put aside so that the rest takes no more than there is room for; none where all of it does.
 * @param near ids from the nearest on; what is not among them goes first. @param room bytes.
 */
export function tooFar(atHand: readonly Sized[], near: readonly Id[], room: number): Drawing[] {
  let left = atHand.reduce((sum, { size }) => sum + size, 0);
  if (left <= room) return [];
  const rank = new Map(near.map((id, i) => [id, i]));
  const rankOf = ({ drawing }: Sized): number => rank.get(drawing.id) ?? Infinity;
  const far: Drawing[] = [];
  for (const each of atHand.toSorted((a, b) => (rankOf(a) === rankOf(b) ? 0 : rankOf(b) - rankOf(a)))) {
    if (left <= room * LEFT) break;
    far.push(each.drawing);
    left -= each.size;
  }
  return far;
}

/**
 * Works out what is asked of drawings that nobody looks at: the room each takes, what it covers, its pieces, its fingerprints.
 * It is kept by the drawing, so that nobody has to read its marks for it.
 */
function knowBeforehand(drawing: Drawing): void {
  for (const ask of [drawingRoom, areasOf, pieceNames, swatchesOf, hasShape, fingerprintOf]) ask(drawing);
  outlinesOf([drawing]);
}

export class FarDrawings {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private stopped = false;
  private isPutting = false;
  private isReading = false;
  private readonly seen = latestOnly((error) => {
    reportError(error);
  });
  private readonly unlisten: (() => void)[];

  /** @param isUnsaved whether nothing but this page and its browser has a drawing: it stays at hand. @param room bytes. */
  constructor(
    private readonly isUnsaved: (id: Id) => boolean,
    private readonly room: number,
  ) {
    this.unlisten = [
      onChange(() => {
        this.soon();
      }),
      useSelection.subscribe((now, before) => {
        if (now.frame !== before.frame || now.elementId !== before.elementId) this.moved();
      }),
      usePlayback.subscribe((now, before) => {
        if (now.playing !== before.playing) this.moved();
      }),
    ];
  }

  /** Something else is looked at. */
  private moved(): void {
    if (playback().playing) return;
    this.soon();
    this.seen.ask(() => this.readSeen());
    void this.readAround();
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
    for (const unlisten of this.unlisten) unlisten();
  }

  private soon(): void {
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      void this.putFarAside();
    }, REST_MS);
  }

  /** Puts aside what is more than there is room for, the farthest first. */
  async putFarAside(): Promise<void> {
    if (this.isPutting) return;
    this.isPutting = true;
    try {
      await whenIdle(LATEST_MS);
      for (const drawing of this.far()) {
        await whenIdle(LATEST_MS);
        await pictureFirst();
        if (this.stopped) return;
        // Somebody may have begun to change it meanwhile.
        if (this.isUnsaved(drawing.id)) continue;
        knowBeforehand(drawing);
        await asides.putAside(drawing);
      }
    } finally {
      this.isPutting = false;
    }
  }

  private far(): Drawing[] {
    const { doc } = useDocument.getState();
    const now = current();
    if (!doc || !now || this.stopped) return [];
    const atHand = entitiesOf(doc, 'drawing')
      .filter((drawing) => !asides.isAside(drawing))
      .map((drawing) => ({ drawing, size: asides.sizeOf(drawing) }));
    const near = drawingsNear(now, selection().frame);
    const far = tooFar(atHand, near, this.room);
    const rested = far.filter((drawing) => asides.restFor(drawing) > STAY_MS);
    // The others go once they have stayed, also where nothing more is done.
    if (rested.length < far.length) this.soon();
    return rested.filter((drawing) => !this.isUnsaved(drawing.id));
  }

  /**
   * Reads back what is seen now, at once, whatever else is being read: painters read for themselves, so it may be on the
   * screen already, and the pen may land on it.
   */
  private async readSeen(): Promise<void> {
    const now = current();
    if (!now || this.stopped) return;
    const seen = now.layers.flatMap((timed) => shownOn(timed, selection().frame, now.length)?.drawingId ?? []);
    await asides.toHand(findAll(now.doc, 'drawing', seen));
  }

  /** Reads back what is around the playhead as long as that stays. */
  private async readAround(): Promise<void> {
    const now = current();
    if (!now || this.isReading) return;
    const { frame } = selection();
    this.isReading = true;
    try {
      let left = this.room * AROUND;
      for (const drawing of findAll(now.doc, 'drawing', drawingsNear(now, frame))) {
        left -= asides.sizeOf(drawing);
        if (left < 0 || this.stopped || playback().playing || selection().frame !== frame) break;
        if (!asides.isAside(drawing)) continue;
        await whenIdle(LATEST_MS);
        await asides.toHand([drawing]);
      }
    } finally {
      this.isReading = false;
    }
    if (!this.stopped && !playback().playing && selection().frame !== frame) await this.readAround();
  }
}
