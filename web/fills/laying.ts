/** Fills as they are laid: at places, within a lasso, behind a closing stroke; taken away, and painted anew. */
import { find, randomId, type Stroke } from '@tallow/core/document';
import { boundsFingerprint } from '@tallow/core/derived';
import { landMarks, layFills, repaint, unfill, whyNotDrawable, withFillLayer } from '@tallow/core/edit';
import { apply, invert, multiply, type Matrix, type Point } from '@tallow/core/geometry';
import type { FilledShape } from '@tallow/core/paint';
import type { FillThere } from '@tallow/core/render';
import { toolState } from '../hand/tool-state.ts';
import { frameFrom } from '../playback/place.ts';
import { current, layerMatrix, shownNow, swatchOf, type Current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { compute } from '../workers/compute-client.ts';
import { fillingNow, planFor, setFill, toFillLayer, useFill, whyNotFill } from './fill.ts';
import { ready } from './looking.ts';

/** Says why a fill did not hold. */
function sayLeaks({ leaks }: FillThere): void {
  if (!leaks || (leaks.places.length === 0 && leaks.minGap === null)) {
    say('Nothing encloses this place. Fill inside lines that close, or draw a closing stroke.');
    return;
  }
  const count = leaks.places.length;
  const where = count === 1 ? 'at one place: close the line there' : `at ${count} places: close the line there`;
  say(
    leaks.minGap === null
      ? `The fill runs out ${where}.`
      : `The fill runs out ${where} or raise Gap to ${leaks.minGap} px.`,
    leaks.minGap === null
      ? undefined
      : {
          label: `Gap ${leaks.minGap} px`,
          run: () => {
            setFill({ gap: leaks.minGap! });
          },
        },
  );
}

/** Lays shapes on the fill layer of what was active when they were asked for, making it where there is none. */
function lay(asked: Current, name: string, frame: number, shapes: readonly FilledShape[], gesture?: string): void {
  const latest = current();
  const swatch = latest && swatchOf(latest.doc, toolState().swatchId);
  const place = fillingNow(asked);
  const active = asked.active?.layer.id;
  if (!active || !swatch || !place || shapes.length === 0 || !find(latest.doc, 'layer', active)) return;
  const at = frameFrom(asked, frame);
  // The lines stay active, though there is a layer now that would be drawn on first.
  if (latest.active?.layer.id === active) setSelection({ layerId: active });
  edit(
    name,
    (doc) => {
      const made = withFillLayer(doc, active, randomId);
      const plan = planFor(made.layerId, place.boundIds);
      const print = boundsFingerprint(made.doc, plan, at) ?? '';
      const painted = shapes.map((shape) => ({ ...shape, swatch: swatch.id }));
      return layFills(made.doc, plan, at, painted, print, randomId);
    },
    gesture,
  );
}

/** What a fill starts from: the frame, the key of its regions and the way to the fill layer; null, and said, where there is none. */
async function begun(now: Current | null): Promise<{ frame: number; key: string; toFill: Matrix } | null> {
  const trouble = whyNotFill(now);
  if (!now || trouble) {
    say(trouble!);
    return null;
  }
  const { frame } = selection();
  const toFill = toFillLayer(now, fillingNow(now)?.layerId ?? null, frame);
  const key = await ready(now, frame);
  if (key) return { frame, key, toFill };
  say('There are no lines here that could bound a fill. Draw some, or choose other layers at “Bounded by”.');
  return null;
}

/** Fills the regions that lie under some places. @param at the active layer's space. */
export async function fillAt(at: readonly Point[]): Promise<void> {
  const now = current();
  const start = await begun(now);
  if (!now || !start) return;
  const found = new Map<number, FilledShape>();
  let missed: FillThere | null = null;
  for (const place of at) {
    const there = await compute().fillAt(start.key, apply(start.toFill, place));
    if (there.shape) found.set(there.region, there.shape);
    else missed ??= there;
  }
  if (found.size === 0 && missed) sayLeaks(missed);
  lay(now, found.size > 1 ? `fill ${found.size} regions` : 'fill', start.frame, [...found.values()]);
}

/** Fills several regions at once. @param lasso the active layer's space. */
export async function fillMany(which: 'all' | 'silhouette' | 'lasso', lasso: readonly Point[] = []): Promise<void> {
  const now = current();
  const start = await begun(now);
  if (!now || !start) return;
  const { frame, key, toFill } = start;
  const within = lasso.map((p) => apply(toFill, p));
  const shapes = await compute().fillMany(key, which, within);
  if (shapes.length === 0) say('Nothing is enclosed here. Raise Gap, or close the lines.');
  else lay(now, which === 'silhouette' ? 'fill all but the outside' : `fill ${shapes.length} regions`, frame, shapes);
}

/** Draws a line that bounds and is never seen; fills what it closes, if that is wanted. @param at the active layer's space. */
export async function closeWith(at: readonly Point[]): Promise<void> {
  const now = current();
  const swatch = now && swatchOf(now.doc, toolState().swatchId);
  const place = now && fillingNow(now);
  const lines = now?.layers.find(({ layer }) => layer.id === place?.boundIds[0]);
  const trouble = whyNotDrawable(lines);
  if (!now?.active || !swatch || !lines || trouble) {
    say(trouble ?? 'There are no lines here to close. Draw some first.');
    return;
  }
  const { frame } = selection();
  const before = await ready(now, frame);
  const own = multiply(invert(layerMatrix({ ...now, active: lines }, frame)), layerMatrix(now, frame));
  const points = at.map((p) => apply(own, p));
  const column = (of: (i: number) => number) => Float32Array.from(points, (_, i) => of(i));
  const stroke: Stroke = {
    kind: 'stroke',
    id: randomId(),
    swatch: swatch.id,
    brush: { kind: 'ink', width: 3, opacity: 1, pressure: false },
    seed: 0,
    samples: {
      x: column((i) => points[i]!.x),
      y: column((i) => points[i]!.y),
      pressure: column(() => 1),
      altitude: column(() => Math.PI / 2),
      azimuth: column(() => 0),
    },
    unseen: true,
  };
  const gesture = `close-${stroke.id}`;
  const drawingId = shownNow({ ...now, active: lines }, frame)?.drawingId ?? null;
  const landing = { layerId: lines.layer.id, drawingId, frame: frameFrom(now, frame) };
  edit('closing stroke', (doc) => landMarks(doc, landing, [stroke], randomId), gesture);
  if (!useFill.getState().fillsClosed) return;
  const after = current();
  const there = frameFrom(now, frame);
  const key = after && (await ready(after, there));
  if (!key) return;
  const shapes = await compute().fillClosed(before ?? '', key);
  if (shapes.length === 0) say('This stroke closes nothing yet.');
  else lay(after, 'closing stroke with fill', there, shapes, gesture);
}

/** Takes away the fill, or paints it in the active swatch, where the pen is. @param at the active layer's space. */
export async function changeFill(how: 'unfill' | 'repaint', at: Point): Promise<void> {
  const now = current();
  const layerId = now && fillingNow(now)?.layerId;
  const swatch = now && swatchOf(now.doc, toolState().swatchId);
  if (!now || !layerId || !swatch) {
    say('There is no fill here.');
    return;
  }
  const { frame } = selection();
  const place = apply(toFillLayer(now, layerId, frame), at);
  const key = how === 'unfill' ? await ready(now, frame) : null;
  const there = key ? await compute().fillAt(key, place) : null;
  const { serial } = useDocument.getState();
  const on = frameFrom(now, frame);
  edit(how === 'unfill' ? 'take fill away' : 'fill in another swatch', (doc) =>
    how === 'unfill'
      ? unfill(doc, layerId, on, place, there?.shape?.rings ?? [])
      : repaint(doc, layerId, on, place, swatch.id),
  );
  if (useDocument.getState().serial === serial) say('There is no fill here that could be changed.');
}
