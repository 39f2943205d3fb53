/** Smearing the fast ones: of a picked range or of all drawings, each with as much as its speed asks for, and only in runs of two or more. */
import { settingsOf } from '@tallow/core/controls';
import { find, randomId, type Id, type SmearReach, type Smearing } from '@tallow/core/document';
import {
  indicesOf,
  laySmear,
  newSmear,
  setElement,
  smearPlace,
  smearsOf,
  smearWork,
  subjectLayers,
  type SmearPlan,
} from '@tallow/core/edit';
import { fastRuns, rightAmount, smearOf, type Judged, type Smeared, type SmearWork } from '@tallow/core/smears';
import { proxy } from 'comlink';
import { create } from 'zustand';
import { openEngine } from '../picture/open-engine.ts';
import { playback, stopPlaying } from '../playback/playback.ts';
import { loaded } from '../saving/drawings.ts';
import { current, type Current } from '../selection/current.ts';
import { selectedNow } from '../selection/to-edit.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, goOn, onChange, reEdit, say } from '../shot/document.ts';
import { compute } from '../workers/compute-client.ts';
import { latestOnly } from '../workers/latest.ts';
import { amountOf } from './dragging.ts';
import { isSomething, setSmear, smearDesk, smearingOf } from './smear.ts';

/** A step that is judged: where a smear of it would lie, and how fast it is. */
interface Step {
  readonly plan: SmearPlan;
  readonly replaces: Id | null;
  readonly work: SmearWork;
  readonly speed: Judged;
  readonly fast: boolean;
  /** Whether a smear leads to its drawing already. */
  readonly smeared: boolean;
}

interface FastDesk {
  /** How much, of what the speed asks for; 100 % is right. */
  readonly share: number;
  readonly working: { readonly done: number; readonly of: number } | null;
  /** What was last smeared, while its amount can still be moved. */
  readonly last: { readonly steps: readonly Step[]; readonly gesture: string } | null;
}

export const useFast = create<FastDesk>(() => ({ share: 1, working: null, last: null }));

/** Says how far a subject may be stretched, and as what it is smeared. */
export function setSmearing(changes: Partial<Smearing>): void {
  const now = current();
  if (!now) return;
  const own = { ...smearingOf(now), ...changes };
  if (changes.form) setSmear({ form: changes.form });
  const name = selection().piece ?? '';
  edit('how far it may stretch', (doc) => {
    const element = find(doc, 'element', now.element.id)!;
    return setElement(doc, element.id, { smearings: { ...element.smearings, [name]: own } });
  });
}

export const REACH_WORDS: Readonly<Record<SmearReach, string>> = { stiff: 'stiff', some: 'some', far: 'far' };

export function whyNotFast(): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  if (useFast.getState().working) return 'Smears are being laid already.';
  const drawn = now.active.list.runs.filter(({ slot }) => slot && now.active!.layer.slots[slot]).length;
  return drawn > 2 ? null : 'There are fewer than three drawings: nothing runs.';
}

/** Indices of the runs that are meant: those picked, else all. */
function runsMeant(now: Current): number[] {
  const { list } = now.active!;
  const selected = selectedNow();
  return selected ? indicesOf(selected, list.runs.length) : list.runs.map((_, i) => i);
}

/** All steps that are meant, judged. */
async function stepsNow(now: Current): Promise<Step[]> {
  const { layer } = now.active!;
  const { form: last, settings } = smearDesk();
  const form = smearingOf(now).form ?? last;
  const layers = subjectLayers(now.doc, layer.id);
  // A frame that was made for a smear is no drawing that arrives.
  const made = new Set(smearsOf(now.doc, now.element.id).flatMap(({ slot }) => slot ?? []));
  const found = runsMeant(now).flatMap((index) => {
    if (made.has(now.active!.list.runs[index]?.slot ?? '')) return [];
    const place = smearPlace(now.doc, layer.id, index);
    if (!place || place.stops.length < 2) return [];
    const plan = { ...newSmear(place, layers, form, settings[form] ?? {}), piece: selection().piece };
    const work = smearWork(now.doc, plan);
    return work ? [{ plan, replaces: place.replaces, work }] : [];
  });
  const speeds = await compute().speeds(found.map(({ work }) => work));
  const fast = fastRuns(
    speeds.map((speed) => speed.fast),
    now.element.time === 'cycle' && !selectedNow(),
  );
  const arrived = new Set(
    smearsOf(now.doc, now.element.id).flatMap((smear) =>
      smear.layers.includes(layer.id) ? [smear.stops.at(-1)!] : [],
    ),
  );
  return found.map((step, i) => ({
    ...step,
    speed: speeds[i]!,
    fast: fast[i]!,
    smeared: arrived.has(step.plan.stops.at(-1)!),
  }));
}

/** The fast steps, without those whose frame would have to come from a drawing another of them needs. */
function withFrames(steps: readonly Step[]): { taken: Step[]; without: number } {
  const needed = new Set<Id>();
  const taken: Step[] = [];
  let without = 0;
  for (const step of steps.filter(({ fast, smeared }) => fast && !smeared)) {
    const { stops } = step.plan;
    const isOwn = step.plan.time !== 'behind';
    if (isOwn && step.replaces && needed.has(step.replaces)) {
      without += 1;
      continue;
    }
    taken.push(step);
    if (isOwn) for (const slot of stops.slice(-2)) needed.add(slot);
  }
  return { taken, without };
}

/** A plan with the amount that is right for its speed. */
function planFor({ plan, speed }: Step, reach: SmearReach, share: number): SmearPlan {
  const right = rightAmount(speed, reach) * share;
  const { key, min, max } = amountOf(plan.form);
  // A stretch is as far as the speed asks; of other kinds the usual amount is for the whole of it.
  const amount = plan.form === 'stretch' ? right * 100 : (plan.settings[key] ?? min) * right;
  return {
    ...plan,
    settings: settingsOf(smearOf(plan.form), { ...plan.settings, [key]: Math.min(max, Math.max(min, amount)) }),
  };
}

async function smearedFor(plans: readonly SmearPlan[], steps: readonly Step[]): Promise<Smeared[] | null> {
  useFast.setState({ working: { done: 0, of: steps.length } });
  try {
    return await compute().smears(
      steps.map(({ work }, i) => ({ ...work, smear: plans[i]! })),
      proxy((done: number, of: number) => {
        useFast.setState({ working: { done, of } });
        return Promise.resolve();
      }),
    );
  } finally {
    useFast.setState({ working: null });
  }
}

/** Smears the fast ones. */
export async function smearFast(): Promise<void> {
  const trouble = whyNotFast();
  if (trouble) {
    say(trouble);
    return;
  }
  try {
    const first = current()!;
    await loaded(first.layers.flatMap(({ layer }) => Object.values(layer.slots)));
    const now = current();
    if (!now?.active) return;
    const { reach } = smearingOf(now);
    if (reach === 'stiff') {
      say('This is stiff: it is not to be stretched. Let it stretch some, or far, to smear it.');
      return;
    }
    const { taken, without } = withFrames(await stepsNow(now));
    if (taken.length === 0) {
      say('Nothing is too fast here that is not smeared already: no two steps in a row lose the form to the eye.');
      return;
    }
    const gesture = `fast-${randomId()}`;
    const laid = await layFast(taken, reach, gesture);
    if (laid === null) return;
    useFast.setState({ last: { steps: taken, gesture } });
    const rest = without > 0 ? ` ${without} had no frame to spare.` : '';
    say(`${laid} fast ${laid === 1 ? 'drawing is' : 'drawings are'} smeared.${rest}`);
  } catch (error) {
    notComputed(error);
  }
}

const notComputed = (error: unknown): void => {
  say(`The smears could not be computed: ${error instanceof Error ? error.message : String(error)}`);
};

/** Lays all of them as one step. @param again in place of how they were laid. @returns how many came out, or null when stopped. */
async function layFast(
  steps: readonly Step[],
  reach: SmearReach,
  gesture: string,
  again = false,
): Promise<number | null> {
  const plans = steps.map((step) => planFor(step, reach, useFast.getState().share));
  const smeared = await smearedFor(plans, steps);
  // Something else was done since, or it was undone: what was laid is laid.
  if (!smeared || (again && !goOn(gesture))) return null;
  setSelection({ selectedRuns: null });
  let laid = 0;
  reEdit(
    'smear the fast ones',
    (doc) => {
      laid = 0;
      return plans.reduce((next, plan, i) => {
        // Another may have taken its drawing since.
        if (!isSomething(smeared[i]!) || !smearWork(next, plan)) return next;
        laid += 1;
        return laySmear(next, plan, smeared[i]!, steps[i]!.replaces, randomId).doc;
      }, doc);
    },
    gesture,
  );
  return laid;
}

const shares = latestOnly(notComputed);

/** Sets how much the fast ones are smeared; those just laid follow while it is moved. */
export function setFraction(share: number, done: boolean): void {
  useFast.setState({ share });
  const { last } = useFast.getState();
  const now = current();
  if (!last || !now) return;
  shares.ask(async () => {
    await layFast(last.steps, smearingOf(now).reach, last.gesture, true);
  });
  // It plays while it is moved.
  if (!done && !playback().playing) void openEngine()?.player.play();
  // The step stays open: moved again, all of it is laid anew in place of what was laid.
  if (done) stopPlaying();
}

// Undone or brought back it is no more the step under the slider.
onChange((_, by) => {
  if (by === 'undo') useFast.setState({ last: null });
});

export const stopFast = (): void => {
  void compute().stop();
};
