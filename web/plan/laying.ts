/** Starters on their way: previewed while their settings move, laid when they are let go. */
import { find, randomId, type Id, type ShotDocument, type Starter } from '@tallow/core/document';
import { pathFingerprint } from '@tallow/core/derived';
import { layStarter, type ByHand } from '@tallow/core/edit';
import { starterHolds, starterOf, type LaidFrame } from '@tallow/core/starters';
import { proxy } from 'comlink';
import { compute } from '../workers/compute-client.ts';
import type { StarterWork } from '../workers/compute.ts';
import { current } from '../selection/current.ts';
import { setShowing, showing } from '../picture/showing.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { plan, setPlanning, selectPlanned } from './plan.ts';
import { openEngine } from '../picture/open-engine.ts';
import { loaded, withDrawings } from '../saving/drawings.ts';

/** A starter with what the compute worker needs of the document, or null when its element is gone. */
export function workOf(starter: Starter): StarterWork | null {
  const { doc } = useDocument.getState();
  const element = doc && find(doc, 'element', starter.elementId);
  if (!doc || !element) return null;
  const path = find(doc, 'path', starter.pathId) ?? null;
  return { starter: { ...starter, along: path && pathFingerprint(path) }, element, path };
}

const layersOf = (starter: Starter): Id[] => Object.values(starter.layers);

/** Shows a starter with settings that are still moving, in place of what it has laid. */
export function preview(starter: Starter): void {
  setPlanning({ moving: starter });
  if (showing().without.length === 0) setShowing({ without: layersOf(starter) });
}

function endPreview(): void {
  setPlanning({ moving: null, laying: null });
  setShowing({ without: [] });
}

/** Puts back what was laid before its settings moved. */
export function dropPreview(): void {
  void compute().stop();
  endPreview();
}

/** Frames waited for the picture at most. */
const PATIENCE = 90;

/** Comes when the picture shows the document as it is now. */
async function whenPainted(): Promise<void> {
  const canvas = openEngine()?.compositor.canvas;
  for (let i = 0; i < PATIENCE && canvas && canvas.dataset['shown'] !== canvas.dataset['wanted']; i++)
    await new Promise((next) => requestAnimationFrame(next));
}

let layings = 0;

/**
 * Lays a starter with these settings: one step of undo.
 * @param name of the step. @param byHand what becomes of drawings changed by hand.
 */
export async function layNow(starter: Starter, name: string, byHand: ByHand = 'keep'): Promise<void> {
  const work = workOf(starter);
  const { doc } = useDocument.getState();
  if (!work || !doc) return;
  layings += 1;
  const own = layings;
  const shotId = doc.shotId;
  setPlanning({ moving: starter, laying: { name: starterOf(starter.effect).name, done: 0, of: 1 } });
  if (layersOf(starter).length > 0) setShowing({ without: layersOf(starter) });
  let frames: LaidFrame[] | null = null;
  try {
    frames = await compute().lay(
      work,
      proxy((done: number, of: number) => {
        if (own === layings) setPlanning({ laying: { name: starterOf(starter.effect).name, done, of } });
        return Promise.resolve();
      }),
    );
  } catch (error) {
    say(`It could not be laid: ${error instanceof Error ? error.message : String(error)}`);
  }
  if (own !== layings) return;
  if (!frames || useDocument.getState().doc?.shotId !== shotId) {
    endPreview();
    return;
  }
  const laid = frames;
  const drawn = Object.values(find(doc, 'starter', starter.id)?.laid ?? {}).flat();
  withDrawings(
    drawn.map((each) => each.drawingId),
    () => {
      edit(name, (now) => {
        // Its time may have been changed by another step meanwhile: then it is laid again.
        if (starterHolds(now, starter).length !== laid.length) return now;
        const before = find(now, 'starter', starter.id);
        return layStarter(
          now,
          before ? { ...work.starter, laid: before.laid, layers: before.layers } : work.starter,
          laid,
          randomId,
          byHand,
        );
      });
      selectPlanned({ kind: 'starter', id: starter.id });
      showLaid(starter.id);
      setShowing({ without: [] });
      // The preview stays until the picture has what was laid, so that nothing is bare in between.
      void whenPainted().then(() => {
        if (plan().moving === starter) endPreview();
      });
    },
  );
}

/** Draws on the body of what was laid, where nothing else was drawn on. */
function showLaid(starterId: Id): void {
  const now = current();
  const starter = now && find(now.doc, 'starter', starterId);
  if (!starter || now.layers.some(({ layer }) => layer.id === selection().layerId && layer.starterId)) return;
  const kind = starterOf(starter.effect);
  const key = (
    kind.outputs.find((o) => o.role === 'body' && starter.layers[o.key]) ??
    kind.outputs.find((o) => starter.layers[o.key])
  )?.key;
  if (key) setSelection({ layerId: starter.layers[key]! });
}

/** How a starter is laid again when the path it follows has changed; drawings changed by hand stay. */
export async function starterAgain(_: ShotDocument, stale: Starter) {
  const work = workOf(stale);
  const own = ++layings;
  if (!work) return null;
  const { name } = starterOf(stale.effect);
  try {
    const frames = await compute().lay(
      work,
      proxy((done: number, of: number) => {
        if (own === layings) setPlanning({ laying: { name, done, of } });
        return Promise.resolve();
      }),
    );
    if (!frames || own !== layings) return null;
    await loaded(
      Object.values(stale.laid)
        .flat()
        .map(({ drawingId }) => drawingId),
    );
    return (latest: ShotDocument) => {
      const starter = find(latest, 'starter', stale.id);
      return starter && starterHolds(latest, starter).length === frames.length
        ? layStarter(latest, { ...starter, along: work.starter.along }, frames, randomId)
        : latest;
    };
  } finally {
    if (own === layings) setPlanning({ laying: null });
  }
}
