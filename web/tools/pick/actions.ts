/** What is done to what is picked up, by buttons, menus and keys. */
import { find, randomId, type Id, type Mark, type Stroke } from '@tallow/core/document';
import {
  addMarks,
  copiesOf,
  deleteMarks,
  duplicateMarks,
  isOlder,
  joinMarks,
  orderMarks,
  renewBrushes,
  replaceMarks,
  restyle,
  setPath,
  type Ordering,
  type Style,
} from '@tallow/core/edit';
import {
  isClosed,
  marksOfSwatch,
  openedUp,
  outlined,
  parallelSamples,
  type Joining,
  largestOutline,
} from '@tallow/core/marks';
import { asStandIn } from '@tallow/core/plan';
import { ctrl, key, named, of, type Action } from '../../actions/action.ts';
import { current, lineSwatchOf, swatchOf } from '../../selection/current.ts';
import { selection, setSelection } from '../../selection/selection.ts';
import { madeBy } from '../../hand/brushes.ts';
import { toolState } from '../../hand/tool-state.ts';
import { brushOf } from '../../pen/pen-marks.ts';
import { edit, say, useDocument } from '../../shot/document.ts';
import { isChangeable, clearPick, pick, pickBy, pickUp, selectedCount, selectedMarks, whyNotChange } from './pick.ts';
import { growthPath } from './growth.ts';
import { loadedReached } from './reach.ts';
import { drawingsToEdit } from '../../selection/to-edit.ts';
import { withDrawings } from '../../saving/drawings.ts';

const marks = of('Marks');

const whyNotPicked = (): string | null => (selectedCount() > 0 ? null : 'Nothing is picked up.');
/** Something done to what is picked up: not on a locked layer. */
const selected = (label: string, keys: Action['keys'], run: () => void) =>
  marks(label, keys, run, { whyNot: () => whyNotPicked() ?? whyNotChange() });

const order = (to: Ordering) => () => {
  edit(`order: ${to}`, (doc) => orderMarks(doc, pick().sets, to));
};

const activeBrush = () => toolState().brushes[toolState().brushName];

/** Has what is picked up take a style. */
function give(step: string, style: Style): void {
  edit(step, (doc) => restyle(doc, pick().sets, style));
}

function remove(name = 'delete marks'): void {
  const { sets } = pick();
  edit(name, (doc) => deleteMarks(doc, sets));
  clearPick();
}

function duplicate(): void {
  let made = {};
  edit('duplicate marks', (doc) => {
    const copied = duplicateMarks(doc, pick().sets, randomId);
    made = copied.sets;
    return copied.doc;
  });
  pickUp(made);
}

/** Marks cut or copied, as they lay. */
let clip: readonly Mark[] = [];
/** The shot they belong to: in another one their swatches are unknown. */
let clipShot: Id | undefined;
export const hasMarkClip = (): boolean => clip.length > 0 && clipShot === useDocument.getState().doc?.shotId;

function copy(): void {
  clip = selectedMarks();
  clipShot = useDocument.getState().doc?.shotId;
  say(
    `${clip.length} ${clip.length === 1 ? 'mark is' : 'marks are'} copied. Paste puts them in place, on every drawing picked on the wheel.`,
  );
}

/** Puts copies on a layer, in the selected drawings or, where none is, in a new one. */
function putMarks(name: string, layerId: Id, list: readonly Mark[]): void {
  const now = current();
  if (!now) return;
  const onto = layerId === now.active?.layer.id ? drawingsToEdit(now) : [];
  withDrawings(onto, () => {
    const sets: Record<Id, Id[]> = {};
    edit(name, (doc) => {
      if (onto.length === 0) return addMarks(doc, layerId, selection().frame, copiesOf(list, randomId), randomId);
      return onto.reduce((done, drawingId) => {
        const drawing = find(done, 'drawing', drawingId);
        if (!drawing) return done;
        const copies = copiesOf(list, randomId);
        sets[drawingId] = copies.map(({ id }) => id);
        const grown = {
          ...drawing,
          marks: { ...drawing.marks, ...Object.fromEntries(copies.map((mark) => [mark.id, mark])) },
          order: [...drawing.order, ...sets[drawingId]],
        };
        return { ...done, entities: { ...done.entities, [drawingId]: grown } };
      }, doc);
    });
    pickUp(sets);
  });
}

/** Moves what is picked up in the shown drawing onto another layer, at this frame. */
export function toLayer(layerId: Id): void {
  if (!isChangeable()) return;
  const list = selectedMarks();
  const { sets } = pick();
  if (Object.keys(sets).length > 1) {
    say('Marks of several drawings are picked up. Pick up those of one drawing to move them to another layer.');
    return;
  }
  const target = current()?.layers.find(({ layer }) => layer.id === layerId)?.layer;
  withDrawings(Object.values(target?.slots ?? {}), () => {
    edit('to another layer', (doc) =>
      addMarks(deleteMarks(doc, sets), layerId, selection().frame, copiesOf(list, randomId), randomId),
    );
    setSelection({ layerId, selectedRuns: null });
    clearPick();
  });
}

const isLine = (mark: Mark): mark is Stroke => mark.kind === 'stroke';

function whyNotLines(min: number, words: string): () => string | null {
  return () => (selectedMarks().filter(isLine).length >= min ? whyNotChange() : words);
}

/** A line beside each stroke picked up. @param distance px. */
export function addParallel(distance: number): void {
  if (!isChangeable()) return;
  const made: Record<Id, Id[]> = {};
  const { sets } = pick();
  edit('parallel line', (doc) =>
    replaceMarks(doc, sets, (mark, drawingId) => {
      if (!isLine(mark)) return [mark];
      const beside = { ...mark, id: randomId(), samples: parallelSamples(mark.samples, distance) };
      made[drawingId] = [...(made[drawingId] ?? []), beside.id];
      return [mark, beside];
    }),
  );
  pickUp(made);
}

/** Lays a line of a width round each shape that is picked up, in the palette's outline swatch; the lines are then picked up. */
export function addOutline(width: number): void {
  const made: Record<Id, Id[]> = {};
  const { sets } = pick();
  const { doc } = useDocument.getState();
  const line = doc && lineSwatchOf(doc, toolState().swatchId);
  if (!line) return;
  edit('outline', (each) =>
    replaceMarks(each, sets, (mark, drawingId) => {
      if (mark.kind !== 'shape') return [mark];
      const lines = outlined(mark, width, line.id, randomId);
      made[drawingId] = [...(made[drawingId] ?? []), ...lines.map(({ id }) => id)];
      return [mark, ...lines];
    }),
  );
  if (Object.keys(made).length > 0) pickUp(made);
  else say('There is no shape among what is picked up.');
}

/** Leads the open ends of what is picked up together: two strokes become one, a single one closes. */
function join(how: Joining): void {
  const { sets } = pick();
  edit(how === 'arc' ? 'join by an arc' : 'join straight', (doc) => joinMarks(doc, sets, how));
  pickUp(
    Object.fromEntries(
      Object.entries(sets).map(([drawing, ids]) => [drawing, ids.filter((id) => markIn(drawing, id))]),
    ),
  );
}
const markIn = (drawingId: Id, id: Id): Mark | undefined => {
  const { doc } = useDocument.getState();
  return doc ? find(doc, 'drawing', drawingId)?.marks[id] : undefined;
};

function open(): void {
  const { sets } = pick();
  edit('open the line', (doc) => replaceMarks(doc, sets, (mark) => [isLine(mark) ? openedUp(mark) : mark]));
  pickUp(sets);
}

function bySwatch(): void {
  const { swatchId } = toolState();
  if (swatchId) pickBy((drawing) => marksOfSwatch(drawing, swatchId));
}

/** Makes the outline of what is picked up the stand-in of a path of the element. */
function standIn(): void {
  const path = growthPath();
  const ring = largestOutline(selectedMarks());
  if (!path || !ring) {
    say('Pick up a shape or a longer stroke.');
    return;
  }
  edit('stand-in from what is drawn', (doc) =>
    setPath(doc, path.id, { standIn: { ...path.standIn, form: 'shape', shape: asStandIn(ring) } }),
  );
  say('It is the stand-in of the path now; Plan shows it on every tick.');
}

export const PICK_ACTIONS = named({
  allMarks: marks(
    'Pick up all marks',
    [],
    () => {
      pickBy((drawing) => drawing.order, 'new');
    },
    {
      whyNot: () => (loadedReached().some(({ drawing }) => drawing.order.length > 0) ? null : 'Nothing is drawn here.'),
    },
  ),
  swatchMarks: marks('Pick up all in this swatch', [], bySwatch, {
    whyNot: () => (toolState().swatchId ? null : 'Pick a swatch of the palette first.'),
  }),
  letGo: marks('Let go', [], clearPick, { whyNot: whyNotPicked }),
  duplicateMarks: selected('Duplicate', [ctrl('KeyD')], duplicate),
  deleteMarks: selected('Delete marks', [], () => {
    remove();
  }),
  copyMarks: marks('Copy marks', [], copy, { whyNot: whyNotPicked }),
  cutMarks: selected('Cut marks', [], () => {
    copy();
    remove('cut marks');
  }),
  pasteMarks: marks(
    'Paste marks in place',
    [],
    () => {
      const now = current();
      if (now?.active) putMarks('paste marks', now.active.layer.id, clip);
    },
    {
      whyNot: () => (hasMarkClip() ? whyNotChange() : 'No marks of this shot are copied. Pick some up and copy them.'),
    },
  ),
  toTop: selected('To the top of the drawing', [], order('top')),
  up: selected('One up', [key('PageUp')], order('up')),
  down: selected('One down', [key('PageDown')], order('down')),
  toBottom: selected('To the bottom of the drawing', [], order('bottom')),
  renewBrush: marks(
    'Draw with the brush as it is today',
    [],
    () => {
      edit('newest brush', (doc) => renewBrushes(doc, pick().sets));
    },
    {
      whyNot: () =>
        whyNotPicked() ??
        whyNotChange() ??
        (selectedMarks().some(isOlder) ? null : 'What is picked up was drawn with the newest brushes.'),
    },
  ),
  takeSwatch: selected('Give it the swatch in hand', [], () => {
    const now = current();
    const swatch = now && swatchOf(now.doc, toolState().swatchId);
    if (swatch) give('other swatch', { swatch: swatch.id });
  }),
  takeWidth: selected('Give it the width that is set', [], () => {
    give('other width', { width: activeBrush().width });
  }),
  takeTaper: selected('Give it the tapers that are set', [], () => {
    give('other tapers', { taper: activeBrush().taper });
  }),
  takeBrush: marks(
    'Give it the brush in hand',
    [],
    () => {
      give('other brush', { brush: brushOf(toolState().brushName, activeBrush()) });
    },
    {
      whyNot: () =>
        whyNotPicked() ??
        whyNotChange() ??
        (madeBy(toolState().brushName) === 'stroke' ? null : 'Take a brush in hand that draws strokes.'),
    },
  ),
  joinStraight: marks(
    'Join ends straight',
    [],
    () => {
      join('straight');
    },
    { whyNot: whyNotLines(1, 'Pick up one stroke to close it, or two to join them.') },
  ),
  joinArc: marks(
    'Join ends by an arc',
    [],
    () => {
      join('arc');
    },
    { whyNot: whyNotLines(1, 'Pick up one stroke to close it, or two to join them.') },
  ),
  standIn: marks('Use as stand-in on a path', [], standIn, {
    whyNot: () =>
      selectedCount() === 0
        ? 'Nothing is picked up.'
        : (current()?.element.paths.length ?? 0) > 0
          ? null
          : 'This element has no path. Draw one in Plan first.',
  }),
  openLine: marks('Open a closed stroke', [], open, {
    whyNot: () =>
      selectedMarks().some((m) => isLine(m) && isClosed(m.samples)) ? null : 'No closed stroke is picked up.',
  }),
});
