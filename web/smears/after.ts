/** What follows a fast move: squash, settle, and a contact tried three ways. */
import { find, randomId, type Id, type Smear } from '@tallow/core/document';
import {
  betweenWork,
  drawingsOfScope,
  gapAt,
  layContactWays,
  layerScope,
  newSmear,
  putArrival,
  smearPlace,
  smearWork,
  subjectLayers,
  type SmearPlan,
} from '@tallow/core/edit';
import { SETTLING, SQUASHED } from '@tallow/core/smears';
import { exposureAt, runStart } from '@tallow/core/timing';
import { openEngine } from '../picture/open-engine.ts';
import { setPlayback } from '../playback/playback.ts';
import { goTo } from '../playback/playhead.ts';
import { withDrawings } from '../saving/drawings.ts';
import { current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { compute } from '../workers/compute-client.ts';
import { planHere, smearNow } from './smear.ts';

/** The move that ends here: that of the smear that is laid, or of the one that would be. */
function moveHere(smear: Smear | null): SmearPlan | null {
  const { place } = smearNow();
  if (smear) return smear;
  return place && place.stops.length > 1 ? planHere(place) : null;
}

const notComputed = (error: unknown): void => {
  say(`It could not be computed: ${error instanceof Error ? error.message : String(error)}`);
};

export const whyNotArrival = (smear: Smear | null): string | null =>
  moveHere(smear) ? null : 'Stand on the drawing that arrives: what comes before it says which way it goes.';

/** Lays the arriving drawing squashed, or drawn out a little, for its first frame. */
export function layArrival(smear: Smear | null, how: 'squash' | 'settle'): void {
  const plan = moveHere(smear);
  const { doc } = useDocument.getState();
  if (!plan || !doc) {
    say(whyNotArrival(smear) ?? 'There is nothing here.');
    return;
  }
  const ids = plan.layers.flatMap((id) => plan.stops.flatMap((slot) => find(doc, 'layer', id)?.slots[slot] ?? []));
  withDrawings(ids, () => {
    const { doc: loaded } = useDocument.getState();
    const work = loaded && smearWork(loaded, plan);
    if (!work) return;
    void compute()
      .arrived(work, how === 'squash' ? SQUASHED : SETTLING)
      .then((marks) => {
        let frame: number | null = null;
        setSelection({ selectedRuns: null });
        edit(how === 'squash' ? 'squash on arrival' : 'settle after arrival', (now) => {
          if (!smearWork(now, plan)) return now;
          const put = putArrival(now, plan.layerId, plan.stops.at(-1)!, marks, randomId);
          frame = put.frame;
          return put.doc;
        });
        if (frame !== null) goTo(frame);
      }, notComputed);
  });
}

/** Why a contact can not be tried three ways here, or null. */
export function whyNotContact(): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  const { laid, place } = smearNow(now);
  if (laid.length > 0) return 'There is a smear here already: take it away, then try the contact.';
  if (!place || place.stops.length < 2) return 'Stand on the drawing of the contact: one has to come before it.';
  return null;
}

/** Keeps the timing here three ways: as it is, with one drawing more, and stretched; and plays them in turn. */
export function contactThreeWays(): void {
  const trouble = whyNotContact();
  const now = current();
  if (trouble || !now?.active) {
    if (trouble) say(trouble);
    return;
  }
  const layerId: Id = now.active.layer.id;
  const { doc } = now;
  withDrawings(drawingsOfScope(doc, layerScope(doc, layerId)), () => {
    void layWays(layerId).catch(notComputed);
  });
}

async function layWays(layerId: Id): Promise<void> {
  const now = current();
  if (!now?.active) return;
  const { doc, active } = now;
  const index = exposureAt(active.list, selection().frame, now.length)?.index;
  if (index === undefined) return;
  const place = smearPlace(doc, layerId, index);
  const before = (index - 1 + active.list.runs.length) % active.list.runs.length;
  const frame = runStart(active.list, before, now.length);
  const gap = gapAt(doc, layerId, frame);
  if (!place || !gap) return;
  const plan = newSmear(place, subjectLayers(doc, layerId), 'stretch', {});
  const between = { layerId, from: gap.from, to: gap.to, shares: [0.5], way: 'arc', pathId: null, ties: [] } as const;
  const [work, betweens] = [smearWork(doc, plan), betweenWork(doc, between, gap.seam)];
  if (!work || !betweens) return;
  const [smeared, drawings] = [await compute().smear(work), await compute().between(betweens)];
  setSelection({ selectedRuns: null });
  edit('a contact three ways', (latest) =>
    smearWork(latest, plan)
      ? layContactWays(
          latest,
          layerId,
          frame,
          {
            between: { plan: between, drawing: drawings[0]!, work: betweens },
            stretch: { plan, smeared, replaces: place.replaces },
          },
          randomId,
        )
      : latest,
  );
  goTo(Math.max(0, frame));
  setPlayback({ inTurn: true, loops: true });
  void openEngine()?.player.play();
}
