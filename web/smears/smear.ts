/** Smears on the desk: how the next one is set, laying it where one stands, and laying it again while it is set. */
import { settingsOf, type Settings } from '@tallow/core/controls';
import { touchedOf } from '@tallow/core/derived';
import {
  find,
  randomId,
  type Id,
  type Run,
  type ShotDocument,
  type Smear,
  type SmearForm,
  type Smearing,
  type SmearTime,
  type SmearWay,
} from '@tallow/core/document';
import {
  cutHeld,
  freeSmear,
  laySmear,
  movesHeld,
  newSmear,
  relaySmear,
  smearPlace,
  smearsOf,
  smearWork,
  subjectLayers,
  takeSmear,
  type SmearPlace,
  type SmearPlan,
} from '@tallow/core/edit';
import { REACH_SHARE, smearOf, type Smeared, type SmearWork } from '@tallow/core/smears';
import { exposureAt, isLocked } from '@tallow/core/timing';
import { create } from 'zustand';
import { goTo } from '../playback/playhead.ts';
import { loaded, withDrawings } from '../saving/drawings.ts';
import { current, type Current } from '../selection/current.ts';
import { selection, setSelection } from '../selection/selection.ts';
import { edit, endGesture, say, takeBack, useDocument } from '../shot/document.ts';
import { compute } from '../workers/compute-client.ts';
import { latestOnly } from '../workers/latest.ts';

interface SmearDesk {
  /** The kind last used. */
  readonly form: SmearForm;
  /** Settings last used, by kind. */
  readonly settings: Readonly<Partial<Record<SmearForm, Settings>>>;
  readonly way: SmearWay;
  readonly bend: number;
  readonly time: SmearTime;
  readonly asGuide: boolean;
  /** Marks that were picked up when the smear tool was last made active. */
  readonly selected: readonly Id[];
  readonly working: boolean;
}

export const useSmear = create<SmearDesk>(() => ({
  form: 'stretch',
  settings: {},
  way: 'as drawn',
  bend: 0,
  time: 'hold',
  asGuide: false,
  selected: [],
  working: false,
}));
export const smearDesk = useSmear.getState;
export const setSmear = useSmear.setState;

/** What of smears is where the playhead stands. */
interface SmearNow {
  /** Those that are seen here, the selected one first. */
  readonly laid: readonly Smear[];
  /** Where another would be laid. */
  readonly place: SmearPlace | null;
  /** Whether the layer moves here while its drawing is held: it is cut first then. */
  readonly held: boolean;
}

/** The run of the active layer that shows on a frame. */
const runAt = (now: Current, frame: number): number | null =>
  now.active ? (exposureAt(now.active.list, frame, now.length)?.index ?? null) : null;

/** Whether a drawing lies between the two a smear goes from and to: a squash or settle put in where it arrives. */
function isOnTheWay(runs: readonly Run[], { stops }: Smear, slot: Id): boolean {
  const [from, at, to] = [stops.at(-2), slot, stops.at(-1)].map((each) =>
    runs.findIndex((run) => run.slot === each),
  ) as [number, number, number];
  const ahead = (index: number) => (index - from + runs.length) % runs.length;
  return from >= 0 && at >= 0 && to >= 0 && ahead(at) > 0 && ahead(at) < ahead(to);
}

/** What stands on a frame of what is worked on. */
export function smearNow(now: Current | null = current(), frame = selection().frame): SmearNow {
  const index = now ? runAt(now, frame) : null;
  const slot = index === null ? null : (now!.active!.list.runs[index]?.slot ?? null);
  if (!now?.active || index === null || slot === null) return { laid: [], place: null, held: false };
  const { layer } = now.active;
  const laid = smearsOf(now.doc, now.element.id).filter(
    (smear) =>
      (smear.layers.includes(layer.id) || smear.behindId === layer.id) &&
      (smear.slot === slot ||
        smear.stops.at(-1) === slot ||
        smear.laid[smear.behindId ?? '']?.[slot] !== undefined ||
        isOnTheWay(now.active!.list.runs, smear, slot)),
  );
  const { form, time } = smearDesk();
  laid.sort((a, b) => Number(b.form === form) - Number(a.form === form));
  // On a frame that was made for one, it is known by the drawing that arrives.
  const isMade = laid.some((smear) => smear.slot === slot);
  const place = isMade ? null : smearPlace(now.doc, layer.id, index, time);
  const held = (place?.stops.length ?? 0) < 2 && movesHeld(now.doc, layer.id, frame);
  return { laid, place, held };
}

/** Why nothing can be smeared here, or null. @param pulled whether a line says where it comes from. */
export function whyNotSmear(pulled = false): string | null {
  const now = current();
  if (!now?.active) return 'There is no layer. Add one first.';
  if (isLocked(now.active)) return `“${now.active.layer.name}” is locked.`;
  const { laid, place, held } = smearNow(now);
  if ((laid.length > 0 && !place) || held) return null;
  if (!place) return 'Nothing is drawn here: stand on the drawing that arrives.';
  const { period } = now.active.list;
  if (place.time === 'longer' && period !== null && isInPlace(smearDesk()))
    return `This layer repeats every ${period} frames and has no frame to spare here: hold the drawing before for longer.`;
  if (smearDesk().form === 'stretch' && smearingOf(now).reach === 'stiff')
    return 'This is stiff: it is not to be stretched. Another kind, or let it stretch some.';
  if (place.stops.length === 1 && !pulled)
    return 'Nothing comes before this drawing: pull in the picture from where it comes.';
  return null;
}

/** Whether the next smear takes the place of its subject for a frame. */
const isInPlace = ({ form, settings, asGuide }: SmearDesk): boolean =>
  !asGuide && smearOf(form).lies(settings[form] ?? {}) === 'in its place';

/** How a subject is smeared: the piece that is drawn, else the element as a whole. */
export const smearingOf = (now: Current): Smearing =>
  now.element.smearings[selection().piece ?? ''] ?? now.element.smearings[''] ?? { reach: 'far', form: null };

/** What is smeared, where it is not all that moved. */
export interface SmearRequest {
  readonly marks?: readonly Id[];
  readonly line?: Float32Array | null;
}

/** A smear as it would be laid here. */
export function planHere(
  place: SmearPlace,
  asked: SmearRequest = {},
  doc: ShotDocument = useDocument.getState().doc!,
): SmearPlan {
  const { form, settings, way, bend, asGuide } = smearDesk();
  const { piece } = selection();
  const line = asked.line ?? null;
  const plan = newSmear(place, subjectLayers(doc, place.layerId), form, settings[form] ?? {});
  const now = current();
  const max = 100 * (now ? REACH_SHARE[smearingOf(now).reach] : 1);
  const amount = plan.settings['amount'];
  return {
    ...plan,
    // A stretch goes no farther than its subject may.
    settings: amount !== undefined && max < 100 ? { ...plan.settings, amount: Math.min(amount, max) } : plan.settings,
    piece: asked.marks?.length ? null : piece,
    marks: asked.marks ?? [],
    way: line ? 'line' : way === 'path' || way === 'line' ? 'as drawn' : way,
    line,
    bend,
    asGuide,
    time: asGuide ? 'behind' : plan.time,
  };
}

/** Drawings that a plan reads, so that they are there. */
const drawingsOf = (doc: ShotDocument, { layers, stops }: SmearPlan): Id[] =>
  layers.flatMap((id) => {
    const slots = find(doc, 'layer', id)?.slots ?? {};
    return stops.flatMap((slot) => slots[slot] ?? []);
  });

/** Whether anything came of it. */
export const isSomething = ({ own, behind }: Smeared): boolean =>
  [...own.values()].some((marks) => marks.length > 0) || behind.some((marks) => marks.length > 0);

/** Remembers how a smear is set, for the next. */
function rememberSmear({ form, settings, time, way }: SmearPlan): void {
  setSmear({
    form,
    settings: { ...smearDesk().settings, [form]: settings },
    // A bend is of this move alone, and so is a line.
    ...(way === 'straight' || way === 'as drawn' ? { way } : {}),
    ...(time === 'behind' ? {} : { time }),
    bend: 0,
  });
}

const nameOf = (form: SmearForm): string => smearOf(form).name.toLowerCase();

/** Lays a smear where one stands. @returns its id once it is there, or null where nothing came of it. */
export async function laySmearHere(asked: SmearRequest = {}, gesture?: string): Promise<Id | null> {
  const trouble = whyNotSmear(asked.line !== undefined && asked.line !== null);
  const now = current();
  if (trouble || !now?.active) {
    if (trouble) say(trouble);
    return null;
  }
  const seen = smearNow(now);
  if (seen.held && !asked.line) return layHeld(now, asked, gesture);
  return seen.place ? layAt(seen.place, asked, now.doc, gesture) : null;
}

/** Lays one where the layer moves while its drawing is held: from here on it shows a drawing of its own, all in one step. */
async function layHeld({ active, layers }: Current, asked: SmearRequest, gesture?: string): Promise<Id | null> {
  const { layer } = active!;
  await loaded(layers.flatMap((tied) => Object.values(tied.layer.slots)));
  const own = gesture ?? `smear-${randomId()}`;
  edit(nameOf(smearDesk().form), (doc) => cutHeld(doc, layer.id, selection().frame, randomId), own);
  const now = current();
  const { place } = smearNow(now);
  const laid = now && place ? await layAt(place, asked, now.doc, own) : null;
  if (!laid) takeBack(own);
  else if (!gesture) endGesture();
  return laid;
}

function layAt(place: SmearPlace, asked: SmearRequest, doc: ShotDocument, gesture?: string): Promise<Id | null> {
  const plan = planHere(place, asked, doc);
  return new Promise((resolve) => {
    withDrawings(drawingsOf(doc, plan), () => {
      layPlan(plan, place.replaces, gesture).then(resolve, (error: unknown) => {
        notComputed(error);
        resolve(null);
      });
    });
  });
}

async function layPlan(plan: SmearPlan, replaces: Id | null, gesture?: string): Promise<Id | null> {
  const { doc } = useDocument.getState();
  const work = doc && smearWork(doc, plan);
  if (!work) return null;
  setSmear({ working: true });
  try {
    const smeared = await compute().smear(work);
    if (!isSomething(smeared)) {
      say('Nothing moves here: there is nothing to smear.');
      return null;
    }
    let laid: { smearId: Id; frame: number } | null = null;
    setSelection({ selectedRuns: null });
    edit(
      nameOf(plan.form),
      (now) => {
        // Another step may have taken the drawings away meanwhile.
        if (!smearWork(now, plan)) return now;
        const made = laySmear(now, plan, smeared, replaces, randomId);
        laid = made;
        return made.doc;
      },
      gesture,
    );
    if (!laid) return null;
    const { smearId, frame } = laid as { smearId: Id; frame: number };
    goTo(frame);
    return smearId;
  } finally {
    setSmear({ working: false });
  }
}

type SmearChanges = Partial<SmearPlan>;

const notComputed = (error: unknown): void => {
  say(`The smear could not be computed: ${error instanceof Error ? error.message : String(error)}`);
};

const relays = latestOnly(notComputed);

/** Comes when all that was asked for is laid. */
export const relayed = relays.done;

/** Lays a smear again with other settings. @param gesture changes of one drag are one step. */
export function relay(smearId: Id, changes: SmearChanges, name: string, gesture?: string): void {
  relays.ask(() => relayNow(smearId, changes, name, gesture));
}

async function relayNow(smearId: Id, changes: SmearChanges, name: string, gesture?: string): Promise<void> {
  const { doc } = useDocument.getState();
  const smear = doc && find(doc, 'smear', smearId);
  const work = smear && smearWork(doc, { ...smear, ...changes });
  if (!work) return;
  const smeared = await compute().smear(work);
  let frame: number | null = null;
  edit(
    name,
    (now) => {
      const again = relaySmear(now, smearId, changes, smeared, randomId);
      if (!again) return now;
      frame = again.frame;
      return again.doc;
    },
    gesture,
  );
  const laid = find(useDocument.getState().doc!, 'smear', smearId);
  if (laid) rememberSmear(laid);
  // What lies elsewhere now is seen on another frame.
  if (frame !== null && laid && (laid.slot !== smear.slot || laid.behindId !== smear.behindId)) goTo(frame);
  if (!gesture) endGesture();
}

/** Makes a smear another kind, with that kind's own settings. */
export function makeForm(smear: Smear, form: SmearForm): void {
  const kind = smearOf(form);
  const settings = settingsOf(kind, smearDesk().settings[form] ?? {});
  const isBehind = kind.lies(settings) === 'behind' || smear.asGuide;
  const time: SmearTime = isBehind ? 'behind' : smear.time === 'behind' ? 'hold' : smear.time;
  relay(smear.id, { form, settings, time }, nameOf(form));
}

/** Takes a smear away. */
export function removeSmear(smear: Smear): void {
  withDrawings(laidDrawings(smear), () => {
    edit(`take ${nameOf(smear.form)} away`, (doc) => takeSmear(doc, smear.id));
    goTo(Math.min(selection().frame, Math.max(0, (current()?.length ?? 1) - 1)));
  });
}

export const letBe = (smear: Smear): void => {
  edit(`let ${nameOf(smear.form)} be`, (doc) => freeSmear(doc, smear.id));
};

const laidDrawings = ({ laid }: Smear): Id[] => {
  const { doc } = useDocument.getState();
  return Object.entries(laid).flatMap(([layerId, prints]) => {
    const slots = (doc && find(doc, 'layer', layerId)?.slots) ?? {};
    return Object.keys(prints).flatMap((slot) => slots[slot] ?? []);
  });
};

/** Drawings of a smear that a hand has changed. */
export const touchedIn = (doc: ShotDocument, smear: Smear): number => touchedOf(doc, smear).length;

/** Takes back what a drag has laid. */
export const dropGesture = (gesture: string): void => {
  relays.forget();
  takeBack(gesture);
};

/** How a smear is laid again when what it hangs on has changed. */
export async function smearAgain(doc: ShotDocument, stale: Smear) {
  const work: SmearWork | null = smearWork(doc, stale);
  if (!work) return null;
  const smeared = await compute().smear(work);
  return (latest: ShotDocument) => relaySmear(latest, stale.id, {}, smeared, randomId)?.doc ?? latest;
}
