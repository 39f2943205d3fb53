import fc from 'fast-check';
import { addElement, addLayer, lineOver, setLayer } from '../edit/index.ts';
import { entitiesOf, find, newShotDocument } from '../document/index.ts';
import { seededIds } from '../geometry/index.ts';
import {
  brighteningLayers,
  deliveredFrames,
  deliveriesOf,
  deliveryName,
  exportFormats,
  exportNotes,
  forFormat,
  fileStem,
  frameName,
  patternProblem,
  pictureOptions,
  leftOut,
  sequencesOf,
  DEFAULT_EXPORT,
  DEFAULT_PATTERN,
  versionProblem,
  type ExportFormatName,
} from './index.ts';

const newId = seededIds(6);
const base = newShotDocument(
  newId(),
  { name: 'Vent smoke', width: 9, height: 9, rate: 24, length: 8, background: null },
  newId,
);
const element = entitiesOf(base, 'element')[0]!;

test('a pattern must number the frames and hold nothing unknown', () => {
  expect(patternProblem(DEFAULT_PATTERN)).toBeNull();
  expect(patternProblem('{shot}')).toMatch(/\{frame\}/);
  expect(patternProblem('{shop}-{frame}')).toMatch(/\{shop\}/);
  expect(patternProblem('a/{frame}')).toMatch(/“\/”/);
  const settings = { ...DEFAULT_EXPORT, pattern: '{part}_{frame}', from: 0 };
  expect(frameName(settings, 'vent', 'core', 11)).toBe('core_0012');
  // Numbers go on from that of the first file, which is that of its frame in the shot unless it is said otherwise.
  const named = { ...settings, pattern: '{shot}.{version}.{frame}', version: 'v7', padding: 6 };
  expect(frameName({ ...named, from: 24, before: 8 }, 'vent', '', 0)).toBe('vent.v7.000017');
  expect(frameName({ ...named, first: 1001 }, 'vent', '', 2)).toBe('vent.v7.001003');
  expect(frameName({ ...named, before: 8 }, 'vent', '', 0)).toBe('vent.v7.000000');
  expect(['v01', '2.b', 'a/b', '', 'a b'].map((each) => versionProblem(each) === null)).toEqual([
    true,
    true,
    false,
    false,
    false,
  ]);
});

test('at another rate it lasts as long, goes on in order and makes nothing up', () => {
  const rates = fc.integer({ min: 1, max: 120 });
  const range = fc.record({
    from: fc.nat(40),
    frames: fc.integer({ min: 1, max: 200 }),
    before: fc.nat(9),
    after: fc.nat(9),
  });
  fc.assert(
    fc.property(range, rates, rates, ({ from, frames, before, after }, shotRate, rate) => {
      const settings = { from, to: from + frames, before, after, rate };
      const delivered = deliveredFrames(settings, shotRate);
      const seconds = (frames + before + after) / shotRate;
      // Within half a frame of what is delivered, or one frame where it is shorter than that.
      expect(Math.abs(delivered.length / rate - seconds)).toBeLessThanOrEqual(
        Math.max(0.5 / rate, 1 / rate - seconds) + 1e-9,
      );
      for (const [i, frame] of delivered.entries()) {
        expect(frame).toBeGreaterThanOrEqual(from - before);
        expect(frame).toBeLessThan(from + frames + after);
        if (i > 0) expect(frame).toBeGreaterThanOrEqual(delivered[i - 1]!);
      }
      const own = deliveredFrames({ ...settings, rate: null }, shotRate);
      expect(deliveredFrames({ ...settings, rate: shotRate }, shotRate)).toEqual(own);
      expect(own).toEqual(Array.from({ length: frames + before + after }, (_, i) => from - before + i));
    }),
  );
  expect(deliveredFrames({ from: 0, to: 8, before: 0, after: 0, rate: 12 }, 24)).toEqual([0, 2, 4, 6]);
  expect(deliveredFrames({ from: 2, to: 4, before: 0, after: 0, rate: 50 }, 25)).toEqual([2, 2, 3, 3]);
});

test('stems are never empty and hold nothing a file system could refuse', () => {
  fc.assert(
    fc.property(fc.string(), (name) => {
      expect(fileStem(name)).toMatch(/^[\p{Letter}\p{Number}-]+$/u);
    }),
  );
  // What Windows keeps for its devices.
  for (const name of ['con', 'NUL', 'Com1', 'lpt9', 'aux']) expect(fileStem(name)).toBe(`${name.toLowerCase()}-`);
  expect(fileStem('console')).toBe('console');
});

test('layers and elements each get a sequence with a name of its own; hidden and guide layers none', () => {
  const body = addLayer(base, element.id, 'Line', 'body', null, newId);
  const guide = addLayer(body.doc, element.id, 'Guide', 'guide', null, newId);
  expect(sequencesOf(guide.doc, { parts: 'picture', work: false }).map((s) => s.name)).toEqual(['vent-smoke']);
  expect(sequencesOf(guide.doc, { parts: 'layers', work: false }).map((s) => s.name)).toEqual(['line', 'line-2']);
  const hidden = setLayer(guide.doc, body.layerId, { visible: false });
  expect(sequencesOf(hidden, { parts: 'layers', work: false }).map((s) => s.name)).toEqual(['line']);
  const two = addElement(hidden, 'Element 1', 0, newId).doc;
  expect(sequencesOf(two, { parts: 'elements', work: false }).map((s) => s.name)).toEqual(['element-1', 'element-1-2']);
  expect(brighteningLayers(setLayer(two, element.layers[0]!, { blend: 'screen' }))).toEqual(['Line']);
});

test('what is for work is left out by name, and let in where it is wanted', () => {
  const body = addLayer(base, element.id, 'Body', 'body', null, newId);
  const rough = setLayer(body.doc, body.layerId, { forWork: true });
  const { doc } = addLayer(rough, element.id, 'Guide', 'guide', null, newId);
  expect(leftOut(doc)).toEqual([
    { name: 'Guide', why: 'guide' },
    { name: 'Body', why: 'for work' },
  ]);
  const names = (work: boolean) => sequencesOf(doc, { parts: 'layers', work }).map((s) => s.name);
  expect(names(false)).toEqual(['line']);
  expect(names(true).sort()).toEqual(['body', 'line']);
  expect(leftOut(setLayer(doc, body.layerId, { visible: false }))).toEqual([{ name: 'Guide', why: 'guide' }]);
});

test('a rough under a line drawn over it is for work from the start', () => {
  const { doc } = lineOver(base, element.layers[0]!, 'Clean', 'line', newId);
  expect(leftOut(doc).map(({ name }) => name)).toEqual(['Line']);
  const painted = addLayer(base, element.id, 'Body', 'body', null, newId);
  const over = lineOver(painted.doc, painted.layerId, 'Clean', 'line', newId).doc;
  expect(leftOut(over)).toEqual([]);
  // What is painted is taken away as strong as it was.
  expect(find(over, 'layer', painted.layerId)).toBe(find(painted.doc, 'layer', painted.layerId));
});

test('planes and roles each get a sequence that shows nothing else; how a layer is laid is told', () => {
  const glow = addLayer(base, element.id, 'Shine', 'glow', null, newId);
  const doc = setLayer(glow.doc, glow.layerId, { blend: 'lighter' });
  const ask = (parts: 'planes' | 'roles' | 'layers') => sequencesOf(doc, { parts, work: false });
  expect(ask('planes')).toHaveLength(1);
  expect(ask('roles').map(({ name, options }) => [name, options.without])).toEqual([
    ['line', [glow.layerId]],
    ['glow', [element.layers[0]]],
  ]);
  expect(ask('layers').map(({ name, lies }) => `${name} ${lies}`)).toEqual(['shine with add', 'line over']);
});

test('notes say what those who receive frames must know', () => {
  const settings = { ...DEFAULT_EXPORT, from: 2, to: 6, before: 2, parts: 'layers', version: 'v02' } as const;
  const notes = exportNotes(base, { ...settings, pattern: '{shot}-{version}-{frame}' }, { width: 9, height: 9 }, [
    { name: 'line', lies: 'with screen', options: { guides: false }, cut: { left: 1, top: 2, width: 3, height: 4 } },
    { name: 'body', lies: 'over', options: { guides: false }, cut: null },
  ]);
  for (const said of [
    'Vent smoke, v02',
    'Frames: 1 to 6 of the shot, numbered 1 to 6',
    'Handles: 2 before and 0 after',
    'Alpha: straight',
    'line: with screen, cut to 3 x 4 px at 1, 2 from the upper left',
    'body: over',
  ])
    expect(notes).toContain(said);
});

test('what was chosen for one format and cannot be in another is left out there', () => {
  const chosen = {
    ...{ ...DEFAULT_EXPORT, from: 0, to: 8, before: 3, after: 2, trim: true, background: true },
    ...({ parts: 'layers', alpha: 'matte' } as const),
  };
  const as = (format: ExportFormatName) => forFormat({ ...chosen, format });
  expect(as('png')).toMatchObject({ parts: 'layers', alpha: 'matte', trim: true, before: 3, background: false });
  expect(as('exr')).toMatchObject({ parts: 'layers', alpha: 'premultiplied', trim: true });
  // Whole by its kind, though its frames are files.
  expect(as('ora')).toMatchObject({ parts: 'picture', alpha: 'straight', trim: false, before: 3, background: true });
  expect(as('webm')).toMatchObject({ parts: 'picture', trim: false, before: 0, after: 0, background: true });
  expect(forFormat({ ...chosen, format: 'mp4', background: false }).background).toBe(true);
  for (const format of exportFormats()) expect(forFormat(as(format))).toEqual(as(format));
});

test('lines only and all but lines part the layers between them, in every kind of parts', () => {
  const body = addLayer(base, element.id, 'Body', 'body', null, newId);
  const line = element.layers[0]!;
  const without = (layers: 'all' | 'lines' | 'no lines') =>
    pictureOptions(body.doc, { work: false, layers }).without!.toSorted();
  expect(without('all')).toEqual([]);
  expect(without('lines')).toEqual([body.layerId]);
  expect(without('no lines')).toEqual([line]);
  const alone = (layers: 'all' | 'lines' | 'no lines') =>
    sequencesOf(body.doc, { parts: 'layers', work: false, layers }).map(({ options }) => options.alone);
  expect(alone('all').toSorted()).toEqual([line, body.layerId].toSorted());
  expect(alone('lines')).toEqual([line]);
  expect(alone('no lines')).toEqual([body.layerId]);
});

test('a job delivers what it is asked for and what was put aside, each named by what sets it apart', () => {
  const first = { ...DEFAULT_EXPORT, from: 0, to: 8 };
  const second = { ...first, format: 'gif', layers: 'no lines', scale: 0.5 } as const;
  const deliveries = deliveriesOf({ ...first, also: [second] });
  expect(deliveries).toEqual([
    { ...first, also: [] },
    { ...second, also: [] },
  ]);
  expect(deliveries.map(deliveryName)).toEqual(['01-png', '02-gif-no-lines-50pc']);
  const crop = { left: 0, top: 0, width: 4, height: 3 };
  expect(deliveryName({ ...first, crop, parts: 'layers' }, 6)).toBe('07-png-layers-4x3');
  expect(exportNotes(base, { ...first, crop, layers: 'lines' }, { width: 4, height: 3 }, [])).toMatch(
    /Layers: lines only\nCropped: 4 x 3 px at 0, 0 of the shot/,
  );
});
