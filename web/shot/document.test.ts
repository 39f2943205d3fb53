import { find, newShotDocument, shotOf, type ShotDocument, entitiesOf } from '@tallow/core/document';
import { setLayer, setShot, setSwatch } from '@tallow/core/edit';
import { seededIds } from '@tallow/core/geometry';
import {
  closeDocument,
  edit,
  editAlong,
  endGesture,
  goOn,
  HISTORY,
  onChange,
  openDocument,
  receive,
  redo,
  reEdit,
  takeBack,
  undo,
  useDocument,
} from './document.ts';

const newId = seededIds(6);
const fresh = (): ShotDocument =>
  newShotDocument(newId(), { name: 'T', width: 640, height: 360, rate: 24, length: 24, background: null }, newId);
const doc = () => useDocument.getState().doc!;
const layerId = () => entitiesOf(doc(), 'element')[0]!.layers[0]!;
const rate = () => shotOf(doc()).rate;
const setRate = (value: number, gesture?: string) => {
  edit('rate', (d) => setShot(d, { rate: value }), gesture);
};

beforeEach(() => {
  openDocument(fresh(), 'Test', []);
});

test('edits are undone and redone in order, by name; a new edit ends what could be redone', () => {
  setRate(12);
  edit('name', (d) => setLayer(d, layerId(), { name: 'A' }));
  expect(useDocument.getState().done.map((step) => step.name)).toEqual(['rate', 'name']);
  undo();
  undo();
  expect(rate()).toBe(24);
  redo();
  expect(rate()).toBe(12);
  expect(useDocument.getState().undone.map((step) => step.name)).toEqual(['name']);
  setRate(30);
  expect(useDocument.getState().undone).toEqual([]);
});

test('a drag is one step, the next drag another', () => {
  for (const value of [20, 21, 22]) setRate(value, 'drag');
  endGesture();
  for (const value of [40, 41]) setRate(value, 'drag');
  expect(useDocument.getState().done).toHaveLength(2);
  undo();
  expect(rate()).toBe(22);
  undo();
  expect(rate()).toBe(24);
});

test('at least two hundred steps are kept, and never more than set', () => {
  for (let i = 0; i < HISTORY + 20; i++) setRate(1 + (i % 100));
  expect(HISTORY).toBeGreaterThanOrEqual(200);
  expect(useDocument.getState().done).toHaveLength(HISTORY);
  for (let i = 0; i < 200; i++) undo();
  expect(useDocument.getState().undone).toHaveLength(200);
});

test('an edit that changes nothing is no step', () => {
  edit('nothing', (d) => d);
  expect(useDocument.getState().done).toEqual([]);
});

test('what came from elsewhere is no step, and undo leaves it', () => {
  const heard: string[] = [];
  const stop = onChange((ids, by) => {
    heard.push(`${by} ${ids.length}`);
  });
  edit('name', (d) => setLayer(d, layerId(), { name: 'Mine' }));
  const layer = find(doc(), 'layer', layerId())!;
  receive(new Map([[layer.id, { ...layer, locked: true }]]));
  undo();
  stop();
  expect(find(doc(), 'layer', layer.id)).toMatchObject({ name: 'Line', locked: true });
  expect(heard).toEqual(['edit 1', 'server 1', 'undo 1']);
});

test('a step that would take somebody else’s change away is left out and said', () => {
  const swatch = shotOf(doc()).swatches[0]!;
  edit('colour', (d) => setSwatch(d, swatch, { colour: '#111111' }));
  receive(new Map([[swatch, { ...find(doc(), 'swatch', swatch)!, colour: '#222222' }]]));
  undo();
  expect(find(doc(), 'swatch', swatch)!.colour).toBe('#222222');
  expect(useDocument.getState().notice?.text).toMatch(/“colour” was left out/);
});

test('a deleted entity goes, a drawing that arrives is no longer missing', () => {
  const id = newId();
  openDocument(fresh(), 'Test', [id]);
  receive(new Map([[id, { kind: 'drawing', id, marks: {}, order: [] }]]));
  expect(useDocument.getState().missing.size).toBe(0);
  receive(new Map([[id, null]]));
  expect(doc().entities).not.toHaveProperty(id);
  closeDocument();
  expect(useDocument.getState().doc).toBeNull();
});

test('a gesture worked out anew from its beginning is one step, and leaves no trace when it is taken back', () => {
  setRate(30);
  for (const by of [1, 2, 5, 3]) reEdit('faster', (d) => setShot(d, { rate: shotOf(d).rate + by }), 'pull');
  expect(rate()).toBe(33);
  expect(useDocument.getState().done.map((step) => step.name)).toEqual(['rate', 'faster']);
  takeBack('another');
  expect(rate()).toBe(33);
  takeBack('pull');
  expect(rate()).toBe(30);
  expect(useDocument.getState().done.map((step) => step.name)).toEqual(['rate']);
  takeBack('pull');
  expect(rate()).toBe(30);
});

test('a gesture can go on after its drag has ended, but not once something else was done, or it was taken back', () => {
  setRate(30, 'slider');
  endGesture();
  expect(goOn('slider')).toBe(true);
  setRate(48, 'slider');
  expect(useDocument.getState().done).toHaveLength(1);
  setRate(25);
  expect(goOn('slider')).toBe(false);
  undo();
  expect(goOn('slider')).toBe(true);
  undo();
  expect(goOn('slider')).toBe(false);
  expect(rate()).toBe(24);
});

test('a gesture that comes back to where it began still is one step, and undo of it changes nothing', () => {
  reEdit('faster', (d) => setShot(d, { rate: 40 }), 'pull');
  reEdit('faster', (d) => setShot(d, { rate: 24 }), 'pull');
  endGesture();
  expect(rate()).toBe(24);
  undo();
  expect(rate()).toBe(24);
});

describe('what follows by itself', () => {
  const swatch = () => shotOf(doc()).swatches[0]!;
  const other = () => shotOf(doc()).swatches[1]!;
  test('joins the step it follows from, not the one made since', () => {
    edit('cause', (d) => setSwatch(d, swatch(), { colour: '#111111' }));
    edit('since', (d) => setLayer(d, layerId(), { name: 'Since' }));
    editAlong(new Set([swatch()]), (d) => setSwatch(d, other(), { colour: '#222222' }));
    expect(useDocument.getState().done.map(({ name }) => name)).toEqual(['cause', 'since']);
    const was = find(doc(), 'swatch', other())!.colour;
    undo();
    expect(find(doc(), 'swatch', other())!.colour).toBe(was);
    expect(find(doc(), 'layer', layerId())!.name).toBe('Line');
    undo();
    expect(find(doc(), 'swatch', other())!.colour).not.toBe(was);
    redo();
    expect(find(doc(), 'swatch', other())!.colour).toBe(was);
  });
  test('of a step that is in the history no more is no step', () => {
    edit('other', (d) => setLayer(d, layerId(), { name: 'Other' }));
    editAlong(new Set([swatch()]), (d) => setSwatch(d, other(), { colour: '#333333' }));
    undo();
    expect(find(doc(), 'swatch', other())!.colour).toBe('#333333');
  });
});
