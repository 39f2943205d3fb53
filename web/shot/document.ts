/**
 * The open document: its state, history and how far it is saved. The one owner of the document;
 * everything else reads it or hands in edits.
 */
import {
  applyStep,
  joinSteps,
  reversed,
  touchedBetween,
  type Entity,
  type Id,
  type ShotDocument,
  type Step,
} from '@tallow/core/document';
import { create } from 'zustand';

/** Steps kept for undo. */
export const HISTORY = 500;

/** How far the open document is saved. */
export interface Saving {
  /** On the server; on its way there; kept by this browser only; by nothing but this page. */
  readonly state: 'saved' | 'saving' | 'unsaved' | 'memory';
  /** How many things the server does not have. */
  readonly waiting: number;
  /** How many strokes wait for the drawing they were drawn on: nothing but this page has them. */
  readonly landing: number;
  /** Why the server does not have them, or null. */
  readonly server: string | null;
  /** Why this browser cannot keep unsaved work, or null. */
  readonly browser: string | null;
  /** What the server refuses, and why. */
  readonly refused: readonly string[];
}

const SAVED: Saving = { state: 'saved', waiting: 0, landing: 0, server: null, browser: null, refused: [] };

interface Notice {
  readonly id: number;
  readonly text: string;
  /** Something to do about it, with its verb. */
  readonly act?: { readonly label: string; readonly run: () => void };
}

interface DocumentState {
  readonly doc: ShotDocument | null;
  readonly production: string;
  /** Grows with every change of the document. */
  readonly serial: number;
  /** Drawings that exist but have not been fetched yet. */
  readonly missing: ReadonlySet<Id>;
  readonly done: readonly MadeStep[];
  readonly undone: readonly MadeStep[];
  readonly saving: Saving;
  readonly notice: Notice | null;
}

export const useDocument = create<DocumentState>(() => ({
  doc: null,
  production: '',
  serial: 0,
  missing: new Set(),
  done: [],
  undone: [],
  saving: SAVED,
  notice: null,
}));

/** An edit, undo or redo of the user's, or what came from the server. */
type ChangedBy = 'edit' | 'undo' | 'server';
type Listener = (changed: readonly Id[], by: ChangedBy) => void;
const listeners = new Set<Listener>();

/**
 * Where the user works. It goes with what is drawn when others change the document, and back to where a step was made
 * when that is undone.
 */
export interface DeskPlace {
  /** Where the user is now, to be kept with a step. */
  readonly take: () => unknown;
  /** Goes to where a step was made. */
  readonly bring: (where: unknown) => void;
  /** Goes with what is drawn through a change that was not made here. */
  readonly follow: (before: ShotDocument, after: ShotDocument) => void;
}
let place: DeskPlace | null = null;

/** Says who keeps the user's place. */
export function keepPlace(next: DeskPlace): void {
  place = next;
}

/** A step with where it was made. */
interface MadeStep extends Step {
  readonly where?: unknown;
  /** The gesture that made it. */
  readonly gesture?: string;
}

/** Tells of every change of the document: which ids, and what made it. */
export function onChange(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function change(doc: ShotDocument, ids: readonly Id[], by: ChangedBy, more: Partial<DocumentState> = {}): void {
  useDocument.setState((state) => ({ ...more, doc, serial: state.serial + 1 }));
  for (const listener of listeners) listener(ids, by);
}

/** The same for a change that was not made at the user's place: that goes with what is drawn. */
function changeAround(...[doc, ids, by, more]: Parameters<typeof change>): void {
  const { doc: before } = useDocument.getState();
  change(doc, ids, by, more);
  if (before) place?.follow(before, doc);
}

let notices = 0;
/** Says something to the user, in place of what was said before. */
export function say(text: string, act?: Notice['act']): void {
  notices += 1;
  useDocument.setState({ notice: { id: notices, text, ...(act ? { act } : {}) } });
}

let joining: string | null = null;

/** Ends a drag, so that the next one is a step of its own. */
export function endGesture(): void {
  joining = null;
}

/**
 * Goes on with a gesture whose step is the last one, though a drag within it has ended since.
 * @returns false where something else was done since, or it was taken back.
 */
export function goOn(gesture: string): boolean {
  if (useDocument.getState().done.at(-1)?.gesture !== gesture) return false;
  joining = gesture;
  return true;
}

/**
 * Changes the document as one named step.
 * @param gesture edits of one gesture under the same name become one step, until `endGesture`.
 */
export function edit(name: string, change_: (doc: ShotDocument) => ShotDocument, gesture?: string): void {
  const { doc, done } = useDocument.getState();
  if (!doc) return;
  const next = change_(doc);
  const touched = touchedBetween(doc, next);
  const ids = Object.keys(touched);
  if (ids.length === 0) return;
  const step: MadeStep = { name, touched, where: place?.take(), ...(gesture ? { gesture } : {}) };
  const last = done.at(-1);
  const joins = gesture !== undefined && gesture === joining && last !== undefined;
  joining = gesture ?? null;
  const steps = joins ? [...done.slice(0, -1), joined(last, step)] : [...done.slice(1 - HISTORY), step];
  change(next, ids, 'edit', { done: steps, undone: [] });
}

const joined = (first: MadeStep, second: Step): MadeStep => ({
  ...joinSteps(first, second),
  where: first.where,
  ...(first.gesture ? { gesture: first.gesture } : {}),
});

/**
 * Puts in what was made elsewhere, or what comes of merging. It is saved as the user's own work is, but is no step of
 * theirs: undo goes on taking back what they did themselves.
 */
export function editAround(change_: (doc: ShotDocument) => ShotDocument): void {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const next = change_(doc);
  const ids = Object.keys(touchedBetween(doc, next));
  if (ids.length > 0) changeAround(next, ids, 'edit');
}

/**
 * Changes the document anew within a gesture: what the gesture has changed so far is put back first, so
 * that every move of the pen is worked out from where it began.
 */
export function reEdit(name: string, change_: (doc: ShotDocument) => ShotDocument, gesture: string): void {
  const { doc, done } = useDocument.getState();
  const last = done.at(-1);
  if (!doc) return;
  const under = gesture === joining ? last : undefined;
  const before = under ? (applyStep(doc, reversed(under)) ?? doc) : doc;
  const next = change_(before);
  const touched = touchedBetween(before, next);
  const ids = Object.keys(touchedBetween(doc, next));
  if (ids.length === 0) return;
  joining = gesture;
  const steps = under ? done.slice(0, -1) : done.slice(1 - HISTORY);
  const where = under ? under.where : place?.take();
  change(next, ids, 'edit', { done: [...steps, { name, touched, where, gesture }], undone: [] });
}

/**
 * Changes the document as part of the step it follows from by itself: the last one that touched any of the things it
 * hangs on. Where that is no longer in the history, it is no step. Nothing undone is forgotten.
 */
export function editAlong(hangsOn: ReadonlySet<Id>, change_: (doc: ShotDocument) => ShotDocument): void {
  const { doc, done } = useDocument.getState();
  if (!doc) return;
  const next = change_(doc);
  const touched = touchedBetween(doc, next);
  const ids = Object.keys(touched);
  if (ids.length === 0) return;
  const at = done.findLastIndex((step) => Object.keys(step.touched).some((id) => hangsOn.has(id)));
  const cause = done[at];
  const steps = cause ? done.with(at, joined(cause, { name: cause.name, touched })) : done;
  change(next, ids, 'edit', { done: steps });
}

function travel(from: 'done' | 'undone'): void {
  const state = useDocument.getState();
  const step = state[from].at(-1);
  if (!state.doc || !step) return;
  joining = null;
  const rest = state[from].slice(0, -1);
  const next = applyStep(state.doc, from === 'done' ? reversed(step) : step);
  if (!next) {
    useDocument.setState({ [from]: rest });
    say(`“${step.name}” was left out: somebody else has changed the same thing since.`);
    return;
  }
  const other = from === 'done' ? state.undone : state.done;
  // What really changed may be less than the step says, where work of others was merged in.
  const back: MadeStep = {
    name: step.name,
    where: step.where,
    touched: Object.fromEntries(
      Object.keys(step.touched).map((id) => {
        const now = { before: state.doc!.entities[id], after: next.entities[id] };
        return [id, from === 'done' ? { before: now.after, after: now.before } : now];
      }),
    ),
  };
  change(
    next,
    Object.keys(step.touched),
    'undo',
    from === 'done' ? { done: rest, undone: [...other, back] } : { undone: rest, done: [...other, back] },
  );
  if (step.where !== undefined) place?.bring(step.where);
}

/** Puts back what a gesture under way has changed, as if it had not begun. */
export function takeBack(gesture: string): void {
  const { doc, done } = useDocument.getState();
  const step = done.at(-1);
  if (joining !== gesture || !doc || !step) return;
  joining = null;
  const before = applyStep(doc, reversed(step));
  if (before) change(before, Object.keys(step.touched), 'undo', { done: done.slice(0, -1) });
}

export const undo = (): void => {
  travel('done');
};
export const redo = (): void => {
  travel('undone');
};

/** Opens a document as it came from the server. */
export function openDocument(doc: ShotDocument, production: string, missing: readonly Id[]): void {
  joining = null;
  useDocument.setState((state) => ({
    doc,
    production,
    serial: state.serial + 1,
    missing: new Set(missing),
    done: [],
    undone: [],
    saving: SAVED,
    notice: null,
  }));
  for (const listener of listeners) listener(Object.keys(doc.entities), 'server');
}

/** Closes the document when its page is left. */
export function closeDocument(): void {
  useDocument.setState({ doc: null, missing: new Set(), done: [], undone: [] });
}

/** Takes bodies that came from elsewhere: null for deleted. Not a step of the user's. */
export function receive(bodies: ReadonlyMap<Id, Entity | null>): void {
  const { doc, missing } = useDocument.getState();
  if (!doc || bodies.size === 0) return;
  const entities = { ...doc.entities };
  for (const [id, entity] of bodies) {
    if (entity) entities[id] = entity;
    else Reflect.deleteProperty(entities, id);
  }
  const stillMissing = new Set([...missing].filter((id) => !bodies.has(id)));
  const arrived = missing.size - stillMissing.size;
  // Nothing of time has changed where all that comes in are drawings that were awaited: the user's place stays as it is.
  const put = arrived === bodies.size ? change : changeAround;
  put({ ...doc, entities }, [...bodies.keys()], 'server', arrived > 0 ? { missing: stillMissing } : {});
}
