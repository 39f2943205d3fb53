/**
 * The picture's engine: asks the painter for the picture whenever something it shows has changed,
 * one request at a time and always for the latest state, and hands the result to the compositor.
 */
import { shotOf, valueAt, type Id } from '@tallow/core/document';
import { multiply, type Matrix } from '@tallow/core/geometry';
import { drawingsOn } from '@tallow/core/assembly';
import { roundOf } from '@tallow/core/timing';
import { current, shotFrameOf, shownNow, type Current } from '../selection/current.ts';
import { viewed, useViewed, setViewed } from '../view/viewed.ts';
import { playback, usePlayback } from '../playback/playback.ts';
import { shotFrameNow, shotTime, useShotTime } from '../playback/shot-time.ts';
import { toolState, useToolState } from '../hand/tool-state.ts';
import { selection, useSelection } from '../selection/selection.ts';
import { showing, useShowing } from './showing.ts';
import { onScreen, useScreen } from '../screen/screen.ts';
import { fittedView, viewMatrix } from '../view/view.ts';
import { onChange, useDocument } from '../shot/document.ts';
import { ghostsOf, onionReach } from './onion.ts';
import { setGate } from '../workers/gate.ts';
import { framePainter, gate, painter } from '../workers/painter-client.ts';
import { CarriedPicture } from './carried.ts';
import { closePainted, Compositor } from './compositor.ts';
import { ear } from '../sound/ear.ts';
import { FloatingSelection } from './floating-selection.ts';
import type { PicturePlace, PictureWork } from './picture-place.ts';
import { Player, type PlayerScreen } from './player.ts';
import { Pulling } from './pulling.ts';
import { sightOptions } from './sight.ts';
import { drawingsToEdit } from '../selection/to-edit.ts';

/** What of each store the picture shows: a change of it asks for a new picture. */
const SHOWN = {
  selection: ['frame', 'turn', 'layerId', 'elementId', 'place', 'piece', 'selectedRuns'],
  showing: [
    'onion',
    'pinned',
    'ghostShift',
    'alone',
    'dimOthers',
    'planeAlone',
    'filming',
    'without',
    'planning',
    'backdrop',
    'silhouette',
    'looks',
    'finished',
    'assembling',
    'rough',
  ],
  held: ['activeTool'],
  screen: ['panel'],
} as const;

const differ = <T>(now: T, before: T, keys: readonly (keyof T)[]): boolean =>
  keys.some((key) => now[key] !== before[key]);

/** How long what can wait goes on waiting after the picture has come, ms: the page has to show it yet. */
const REST_MS = 120;

/** Whether the picture is seen as it will be taken away. */
const isFinished = (): boolean => showing().finished || showing().assembling;

/** A picture of half the size. */
const halved = ({ width, height, view }: PicturePlace): PicturePlace => ({
  width: Math.max(1, Math.ceil(width / 2)),
  height: Math.max(1, Math.ceil(height / 2)),
  view: multiply([0.5, 0, 0, 0.5, 0, 0], view),
});

export class Engine {
  readonly compositor: Compositor;
  readonly player: Player;
  /** Marks that are moved, and marks that are pulled at. */
  readonly floating: FloatingSelection;
  readonly pulling: Pulling;
  private asked = 0;
  private busy = false;
  private carried: CarriedPicture | null = null;
  private readonly stops: (() => void)[] = [];
  /** Strokes settled here whose document the painter has not drawn yet. */
  private settledSerial = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(canvas: HTMLCanvasElement) {
    this.compositor = new Compositor(canvas, () => {
      this.attend();
    });
    const work: PictureWork = {
      place: () => this.place(),
      begins: () => {
        this.attend();
      },
      settled: () => {
        this.settled();
      },
      again: () => {
        this.refresh();
      },
    };
    this.floating = new FloatingSelection(this.compositor, work);
    this.pulling = new Pulling(this.compositor, work);
    const screen: PlayerScreen = {
      show: (bitmap, opaque) => {
        this.compositor.showFrame(bitmap, opaque);
      },
      place: () => (playback().half ? halved(this.place()) : this.place()),
      draw: (lane, ...asked) => framePainter(lane).frame(...asked),
      mayDraw: () => !this.isBusy,
    };
    this.player = new Player(screen, ear);
    this.stops.push(
      onChange((ids, by) => {
        // Drawings that come in are painted only where they show.
        if (by !== 'server' || this.seen(ids)) this.refresh();
        if (by !== 'server') this.player.noteEdit();
        this.player.ahead.nudge();
      }),
      useViewed.subscribe((now, before) => {
        if (now.view !== before.view || now.area !== before.area) this.moved();
      }),
      usePlayback.subscribe((now, before) => {
        if (now.playing && !before.playing) this.release();
        if (!now.playing && (before.playing || now.flipping !== before.flipping)) this.refresh();
        if (!now.playing) this.player.ahead.nudge();
      }),
      useShotTime.subscribe((now, before) => {
        this.shows(now !== before);
      }),
      useSelection.subscribe((now, before) => {
        this.shows(differ(now, before, SHOWN.selection));
      }),
      useShowing.subscribe((now, before) => {
        this.shows(differ(now, before, SHOWN.showing));
      }),
      useToolState.subscribe((now, before) => {
        this.shows(differ(now, before, SHOWN.held));
      }),
      useScreen.subscribe((now, before) => {
        this.shows(differ(now, before, SHOWN.screen));
      }),
    );
  }

  close(): void {
    this.player.close();
    this.release();
    for (const stop of this.stops) stop();
  }

  /** Asks for a new picture if what it shows has changed; while it plays, the player shows what there is. */
  private shows(changed: boolean): void {
    if (changed && !playback().playing) this.refresh();
  }

  /** Whether anything of some ids is seen now. */
  private seen(ids: readonly Id[]): boolean {
    const now = current();
    if (!now || ids.some((id) => now.doc.entities[id]?.kind !== 'drawing')) return true;
    const { frame } = selection();
    const { onion, pinned } = showing();
    const ghosts = onionReach(now, frame, onion).map(({ drawingId }) => drawingId);
    const shown = new Set([...drawingsOn(now.doc, shotFrameNow()), ...ghosts, ...pinned]);
    return ids.some((id) => shown.has(id));
  }

  /** Notes which request the picture answers; one that still lacks drawings answers none: it is painted again when they come. */
  private answer(request: number, isWhole: boolean): void {
    if (isWhole) this.compositor.canvas.dataset['shown'] = String(request);
  }

  /** How the picture lies now. */
  place(): PicturePlace {
    const { area, view } = viewed();
    const pixel = devicePixelRatio;
    const doc = useDocument.getState().doc;
    const size = doc ? shotOf(doc) : { width: 1, height: 1 };
    const matrix = multiply([pixel, 0, 0, pixel, 0, 0], viewMatrix(view, size, area));
    return {
      width: Math.max(1, Math.round(area.width * pixel)),
      height: Math.max(1, Math.round(area.height * pixel)),
      view: matrix,
    };
  }

  /** Follows the size of the picture's area; a fitted view stays fitted. */
  resized(width: number, height: number): void {
    const doc = useDocument.getState().doc;
    const area = { width, height };
    setViewed(viewed().fitted && doc ? { area, view: fittedView(shotOf(doc), area) } : { area });
    const place = this.place();
    this.compositor.resize(place.width, place.height);
    this.moved();
  }

  private moved(): void {
    if (!playback().playing) this.compositor.showAs(this.place().view);
    this.refresh();
  }

  /** Whether the picture is waited for, or the pen is down: what can wait, waits. */
  get isBusy(): boolean {
    return this.busy || this.compositor.live !== null || this.floating.isOn || this.pulling.isOn;
  }

  /** Lets the other painters wait until neither pen nor picture needs the machine. */
  private attend(): void {
    if (playback().playing) return;
    setGate(gate, true);
    clearTimeout(this.resting);
    this.resting = setTimeout(() => {
      if (this.isBusy) this.attend();
      else this.release();
    }, REST_MS);
  }

  private release(): void {
    clearTimeout(this.resting);
    setGate(gate, false);
  }

  /** Notes that the compositor shows work the painter has not been asked for yet. */
  settled(): void {
    this.settledSerial = useDocument.getState().serial;
  }

  /** Drawings worked on together are seen together. */
  private together(now: Current): Id[] {
    const ids = toolState().activeTool?.ghosts === 'together' ? drawingsToEdit(now) : [];
    const shown = shownNow(now, selection().frame)?.drawingId;
    return ids.length > 1 ? ids.filter((id) => id !== shown) : [];
  }

  /** Begins carrying uses about. @param places their keys. */
  carry(places: readonly string[]): void {
    const now = current();
    if (!now) return;
    this.carried?.end();
    const { width, height, view } = this.place();
    const options = { ...sightOptions(now), backdrop: showing().backdrop };
    const coming = painter().inThree(width, height, view, shotFrameNow(), places, options);
    this.carried = new CarriedPicture(this.compositor, view, coming);
  }

  /** Shows what is carried elsewhere, px of the shot. */
  moveCarried(matrix: Matrix): void {
    this.carried?.move(matrix);
  }

  /** What was carried is let go: it stays as it is shown until the picture comes. */
  letGo(): void {
    this.carried?.end();
    this.carried = null;
    this.refresh();
  }

  /** Asks for the picture as it is now. Requests while one is under way become one. */
  refresh(): void {
    this.asked += 1;
    if (!playback().playing) this.player.ahead.nudge();
    this.compositor.canvas.dataset['wanted'] = String(this.asked);
    this.attend();
    if (this.busy) return;
    this.busy = true;
    // Not at once: the painter hears of the change from another listener of the same change.
    queueMicrotask(
      () =>
        void this.work().finally(() => {
          this.busy = false;
        }),
    );
  }

  private async work(): Promise<void> {
    let answered = 0;
    while (answered !== this.asked) {
      answered = this.asked;
      const now = current();
      // What is carried is shown at once; the picture is drawn anew when it is let go.
      if (!now || playback().playing || this.carried || viewed().area.width === 0) break;
      const { serial, missing } = useDocument.getState();
      const { frame, turn } = selection();
      const { onion, silhouette, backdrop } = showing();
      const { width, height, view } = this.place();
      const layer = now.active?.layer;
      // These show the drawings around as lines of their own.
      const tracing = onScreen().panel === 'cycle' || onScreen().panel === 'between';
      const shotFrame = shotTime().on ? shotTime().frame : shotFrameOf(now, frame, turn);
      const isWhole = !drawingsOn(now.doc, shotFrame).some((id) => missing.has(id));
      if (silhouette) {
        const dark = await painter().silhouette(width, height, view, shotFrame, now.place);
        if (showing().silhouette) this.compositor.showStill(dark, true, view);
        else dark.close();
        this.answer(answered, isWhole);
        continue;
      }
      if (isFinished()) {
        const { rough } = showing();
        const options = { ...sightOptions(now), flat: null, guides: false, looks: 'all', backdrop, rough } as const;
        const seen = await painter().frame(width, height, view, shotFrame, null, options);
        if (isFinished() && !this.carried) this.compositor.showStill(seen, false, view);
        else seen.close();
        this.answer(answered, isWhole);
        continue;
      }
      const painted = await painter().paint({
        width,
        height,
        view,
        shotFrame,
        activeLayerId: layer?.id ?? null,
        place: now.place,
        ghosts:
          playback().flipping || showing().planning || tracing || toolState().activeTool?.ghosts === 'none'
            ? []
            : ghostsOf(now, onionReach(now, frame, onion), this.together(now)),
        pixel: devicePixelRatio,
        options: sightOptions(now),
        backdrop,
        rough: showing().rough,
      });
      // A picture from before the last settled stroke would take that stroke away for a moment.
      const stale = serial < this.settledSerial || playback().playing || showing().silhouette || isFinished();
      if (stale) closePainted(painted);
      else {
        this.compositor.take(painted, view, {
          opacity: layer ? valueAt(layer.opacity, frame, roundOf(now.element, now.length)) : 1,
          blend: layer?.blend ?? 'normal',
        });
        this.answer(answered, isWhole);
        this.pulling.showAgain();
      }
    }
  }
}
