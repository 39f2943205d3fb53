/** Fills, gradients and looks as they come out in pixels on the server. */
import {
  constant,
  find,
  findAll,
  newShotDocument,
  randomId,
  shotOf,
  type Element,
  type LookKind,
  type Id,
  type Layer,
  type Shape,
  type ShotDocument,
  type Stroke,
  entitiesOf,
} from '@tallow/core/document';
import { blurred } from '@tallow/core/canvas';
import { paintedLooks, resolved } from '@tallow/core/compose';
import { LOOKS, lookKinds } from '@tallow/core/looks';
import { boundsFingerprint } from '@tallow/core/derived';
import {
  addLook,
  addFolder,
  addLayer,
  addMark,
  addMarks,
  addSwatch,
  fillPlace,
  layFills,
  newLook,
  setElement,
  setFolder,
  setLayer,
  setSwatch,
  staleFills,
  unfill,
  withFillLayer,
} from '@tallow/core/edit';
import { IDENTITY, polygonRing } from '@tallow/core/geometry';
import { enclosed, latticeOver, paintableOf, regionAt, ringsOf, wellInside } from '@tallow/core/paint';
import { drawBarrier, drawFrame, linesBox, paintsOnLayer } from '@tallow/core/render';
import { directRendering, makeSurface } from '../render/canvas.ts';

const SIZE = 200;
const base = (): ShotDocument =>
  newShotDocument(
    randomId(),
    { name: 'T', width: SIZE, height: SIZE, rate: 24, length: 4, background: null },
    randomId,
  );
const layerOf = (doc: ShotDocument): Layer => entitiesOf(doc, 'layer')[0]!;
const elementOf = (doc: ShotDocument): Element => entitiesOf(doc, 'element')[0]!;
const swatchOf = (doc: ShotDocument, name: string): Id =>
  findAll(doc, 'swatch', shotOf(doc).swatches).find((s) => s.name === name)!.id;

function pixelsOf(doc: ShotDocument, frame = 0, scale = 1): (x: number, y: number) => [number, number, number, number] {
  const side = SIZE * scale;
  const surface = makeSurface(side, side);
  drawFrame(surface, doc, frame, [scale, 0, 0, scale, 0, 0], directRendering(doc), {
    guides: false,
    background: false,
  });
  const { data } = surface.context.getImageData(0, 0, side, side);
  return (x, y) =>
    Array.from(data.slice((y * side + x) * 4, (y * side + x) * 4 + 4)) as [number, number, number, number];
}

const square = (swatch: Id, half: number, x = 0, y = 0): Shape => ({
  kind: 'shape',
  id: randomId(),
  swatch,
  rings: [
    polygonRing([
      [x - half, y - half],
      [x + half, y - half],
      [x + half, y + half],
      [x - half, y + half],
    ]),
  ],
  rule: 'nonzero',
  opacity: 1,
});

function ring(swatch: Id, radius: number, brush: Partial<Stroke['brush']> = {}): Stroke {
  const turn = (i: number) => (i / 120) * 2 * Math.PI;
  const column = (of: (i: number) => number) => Float32Array.from({ length: 121 }, (_, i) => of(i));
  return {
    kind: 'stroke',
    id: randomId(),
    swatch,
    brush: { kind: 'ink', width: 9, opacity: 1, pressure: false, ...brush },
    seed: 5,
    samples: {
      x: column((i) => radius * Math.cos(turn(i))),
      y: column((i) => radius * Math.sin(turn(i))),
      pressure: column(() => 1),
      altitude: column(() => 1.5),
      azimuth: column(() => 0),
    },
  };
}

/** Fills all regions of a layer's lines as the desk does. */
function filled(doc: ShotDocument, lineId: Id, swatch: Id, gap = 6): { doc: ShotDocument; fillId: Id } {
  const { boundIds } = fillPlace(doc, lineId, 'this');
  const drawing = find(doc, 'drawing', Object.values(find(doc, 'layer', lineId)!.slots)[0])!;
  const bounding = [{ drawing, matrix: [1, 0, 0, 1, 0, 0] as const, paintOf: paintsOnLayer(doc, lineId) }];
  const paintable = paintableOf(drawBarrier(latticeOver(linesBox(drawing), gap), bounding, makeSurface), {
    gap,
    under: null,
  });
  const made = withFillLayer(doc, lineId, randomId);
  const plan = { layerId: made.layerId, bounds: boundIds, gap, under: null };
  const shapes = enclosed(paintable).map((label) => ({
    rings: ringsOf(paintable, [label]),
    seed: wellInside(paintable, label),
    swatch,
  }));
  expect(regionAt(paintable, shapes[0]!.seed)).toBeGreaterThan(1);
  return {
    doc: layFills(made.doc, plan, 0, shapes, boundsFingerprint(made.doc, plan, 0)!, randomId),
    fillId: made.layerId,
  };
}

describe('a fill', () => {
  test.each([
    ['ink', {}, 1],
    ['half-opaque ink', { opacity: 0.5 }, 1],
    ['pencil', { kind: 'pencil' as const }, 1],
    ['haze', { kind: 'haze' as const, width: 30 }, 1],
    ['ink, seen twice as large', {}, 2],
    ['ink, seen at a quarter', {}, 1 / 4],
  ])('leaves no bare fringe under a line of %s', (_, brush, scale) => {
    const start = base();
    const line = layerOf(start).id;
    const drawn = addMark(start, line, 0, ring(swatchOf(start, 'line'), 60, brush), randomId);
    const { doc } = filled(drawn, line, swatchOf(start, 'flame'), 10);
    const at = pixelsOf(doc, 0, scale);
    const middle = (SIZE * scale) / 2;
    // From the middle outwards to the middle of the line nothing is see-through; between flecks a line has no sharp middle.
    const reach = 'kind' in brush && brush.kind === 'pencil' ? 56 : 59;
    for (let turn = 0; turn < 24; turn++)
      for (let r = 0; r < reach; r += 2) {
        const x = Math.floor(middle + r * scale * Math.cos(turn));
        const y = Math.floor(middle + r * scale * Math.sin(turn));
        expect(at(x, y)[3]).toBeGreaterThanOrEqual(250);
      }
  });

  test('lies under its line on a tied layer, is replaced where it is filled again, and unfilled', () => {
    const start = base();
    const line = layerOf(start).id;
    const drawn = addMark(start, line, 0, ring(swatchOf(start, 'line'), 60), randomId);
    const once = filled(drawn, line, swatchOf(start, 'flame'));
    const fill = find(once.doc, 'layer', once.fillId)!;
    expect(fill.runListId).toBe(find(once.doc, 'layer', line)!.runListId);
    expect(elementOf(once.doc).layers).toEqual([line, once.fillId]);
    const marksIn = (doc: ShotDocument) => find(doc, 'drawing', Object.values(fill.slots)[0])!.order.length;
    const twice = filled(once.doc, line, swatchOf(start, 'core'));
    expect(marksIn(twice.doc)).toBe(1);
    expect(pixelsOf(twice.doc)(100, 100)).toEqual([0xff, 0xf0, 0xb8, 255]);
    expect(marksIn(unfill(twice.doc, once.fillId, 0, { x: 0, y: 0 }, []))).toBe(0);
    const holed = unfill(twice.doc, once.fillId, 0, { x: 0, y: 0 }, square('', 20).rings);
    expect(pixelsOf(holed)(100, 100)[3]).toBe(0);
    expect(pixelsOf(holed)(100, 130)[3]).toBe(255);
  });

  test('is offered again when its lines change, and not when they are only painted anew', () => {
    const start = base();
    const line = layerOf(start).id;
    const drawn = addMark(start, line, 0, ring(swatchOf(start, 'line'), 60), randomId);
    const { doc } = filled(drawn, line, swatchOf(start, 'flame'));
    const element = elementOf(doc).id;
    expect(staleFills(doc, element)).toEqual([]);
    const repainted = setSwatch(doc, swatchOf(doc, 'line'), { colour: '#00ff00' });
    expect(staleFills(repainted, element)).toEqual([]);
    const changed = addMarks(doc, line, 0, [ring(swatchOf(doc, 'line'), 20)], randomId);
    expect(staleFills(changed, element).map(({ frame }) => frame)).toEqual([0]);
  });
});

test('a region cut by the edge of the picture is bounded by it, where lines alone do not hold', () => {
  const start = base();
  const line = layerOf(start).id;
  const across = ring(swatchOf(start, 'line'), 140);
  // Only its part within the picture's right half, so that it runs out of the picture at both ends.
  const { x, y, pressure, altitude, azimuth } = across.samples;
  const keep = Array.from(x.keys()).filter((i) => i < 31 || i > 89);
  const order = [...keep.filter((i) => i > 89), ...keep.filter((i) => i < 31)];
  const pick = (column: Float32Array) => Float32Array.from(order, (i) => column[i]! - (column === x ? 60 : 0));
  const samples = {
    x: pick(x),
    y: pick(y),
    pressure: pick(pressure),
    altitude: pick(altitude),
    azimuth: pick(azimuth),
  };
  const drawn = addMark(start, line, 0, { ...across, samples }, randomId);
  const drawing = find(drawn, 'drawing', Object.values(find(drawn, 'layer', line)!.slots)[0])!;
  const bounding = [{ drawing, matrix: [1, 0, 0, 1, 0, 0] as const, paintOf: paintsOnLayer(drawn, line) }];
  const frame = { left: -112, top: -112, right: 112, bottom: 112 };
  const box = { left: -220, top: -220, right: 220, bottom: 220 };
  const label = (edge: typeof frame | null) =>
    regionAt(paintableOf(drawBarrier(latticeOver(box, 6), bounding, makeSurface, edge), { gap: 6, under: null }), {
      x: -20,
      y: 0,
    });
  expect(label(null)).toBe(1);
  expect(label(frame)).toBeGreaterThan(1);
});

describe('a gradient', () => {
  const graded = (run: 'shape' | 'axis' | 'picture') => {
    const start = base();
    const swatch = swatchOf(start, 'body');
    const stops = [
      { at: 0, swatch: swatchOf(start, 'line') },
      { at: 1, swatch: swatchOf(start, 'core') },
    ];
    const upright =
      run === 'axis' ? { from: { x: 0, y: 0 }, to: { x: 0, y: 1 } } : { from: { x: 0.5, y: 1 }, to: { x: 0.5, y: 0 } };
    return {
      doc: setSwatch(start, swatch, { gradient: { form: 'linear', run, ...upright, stops } }),
      swatch,
    };
  };
  const green = (doc: ShotDocument, x: number, y: number) => pixelsOf(doc)(x, y)[1];

  test('in its shape runs from edge to edge of each shape, however large it is', () => {
    const { doc, swatch } = graded('shape');
    for (const half of [20, 60]) {
      const drawn = addMark(doc, layerOf(doc).id, 0, square(swatch, half), randomId);
      expect(green(drawn, 100, 100 + half - 2)).toBeLessThan(0x2a + 14);
      expect(green(drawn, 100, 100 - half + 2)).toBeGreaterThan(0xf0 - 14);
      expect(Math.abs(green(drawn, 100, 100) - (0x2a + 0xf0) / 2)).toBeLessThan(6);
    }
  });
  test('along the axis stays where the axis is, so that the foot is dark on every drawing by itself', () => {
    const { doc, swatch } = graded('axis');
    const element = elementOf(doc);
    const axis = setElement(doc, element.id, { tip: { x: 0, y: -80 } });
    const tall = addMark(axis, layerOf(doc).id, 0, square(swatch, 40, 0, -40), randomId);
    const low = addMark(axis, layerOf(doc).id, 0, square(swatch, 20, 0, -20), randomId);
    expect(green(tall, 100, 98)).toBe(green(low, 100, 98));
    expect(green(tall, 100, 70)).toBe(green(low, 100, 70));
    expect(green(tall, 100, 30)).toBeGreaterThan(green(tall, 100, 90) + 90);
  });
  test('across the picture depends on where in the picture something is', () => {
    const { doc, swatch } = graded('picture');
    const drawn = addMarks(doc, layerOf(doc).id, 0, [square(swatch, 10, 0, -80), square(swatch, 10, 0, 80)], randomId);
    expect(green(drawn, 100, 20)).toBeGreaterThan(green(drawn, 100, 180) + 120);
  });
});

describe('looks', () => {
  const looked = (kind: LookKind, numbers: Record<string, number> = {}, choices: Record<string, string> = {}) => {
    const start = base();
    const drawn = addMark(start, layerOf(start).id, 0, square(swatchOf(start, 'flame'), 50), randomId);
    const look = newLook(drawn, kind, randomId);
    return addLook(drawn, layerOf(drawn).id, {
      ...look,
      numbers: { ...look.numbers, ...Object.fromEntries(Object.entries(numbers).map(([k, v]) => [k, constant(v)])) },
      choices: { ...look.choices, ...choices },
    });
  };
  test('glow lays light round what is drawn and none far away', () => {
    const at = pixelsOf(looked('glow', { radius: 20, radii: 1, strength: 100 }));
    expect(at(100, 44)[3]).toBeGreaterThan(60);
    expect(at(100, 4)[3]).toBeLessThan(12);
  });
  test('feather is clear at the edge and whole inside, fade goes along the axis, texture stays inside', () => {
    const soft = pixelsOf(looked('feather', { radius: 24 }));
    expect(soft(52, 100)[3]).toBeLessThan(60);
    expect(soft(100, 100)[3]).toBeGreaterThan(245);
    const gone = pixelsOf(looked('fade', { from: 0, to: 40 }));
    expect(gone(100, 100)[3]).toBeLessThan(8);
    expect(gone(100, 55)[3]).toBeGreaterThan(245);
    for (const form of ['grain', 'smoke', 'spatter', 'hatching']) {
      const at = pixelsOf(looked('texture', { strength: 100, scale: 16 }, { form }));
      expect(at(30, 100)[3]).toBe(0);
      const inside = Array.from({ length: 1600 }, (_, i) => at(60 + (i % 40) * 2, 60 + Math.floor(i / 40) * 2).join());
      expect([form, new Set(inside).size > 1]).toEqual([form, true]);
    }
  });
  test('what is painted in a hole cuts out what lies under it on its layer, lines and shapes, in a tint too', () => {
    const start = base();
    const layerId = layerOf(start).id;
    const hole = addSwatch(start, { name: 'gap', role: 'hole', colour: '#00ff00' }, randomId);
    const body = addMark(hole.doc, layerId, 0, square(swatchOf(start, 'flame'), 50), randomId);
    const cut = addMark(body, layerId, 0, square(hole.swatchId, 20), randomId);
    const at = pixelsOf(cut);
    expect(at(100, 100)[3]).toBe(0);
    expect(at(70, 100)[3]).toBe(255);
    const tinted = setLayer(cut, layerId, { tint: swatchOf(start, 'ash') });
    expect(pixelsOf(tinted)(100, 100)[3]).toBe(0);
    // What is painted after it lies over it.
    const over = addMark(cut, layerId, 0, square(swatchOf(start, 'core'), 10), randomId);
    expect(pixelsOf(over)(100, 100)[3]).toBe(255);
    expect(pixelsOf(over)(85, 100)[3]).toBe(0);
  });
  test('a folder’s looks fall on its layers put together: where two meet nothing shows through', () => {
    const start = base();
    const { elementId, id: leftId } = layerOf(start);
    const added = addLayer(start, elementId, 'Right', 'body', leftId, randomId);
    const square = (left: number): Shape => ({
      kind: 'shape',
      id: randomId(),
      swatch: swatchOf(start, 'flame'),
      rings: [
        polygonRing([
          [left, -50],
          [left + 50, -50],
          [left + 50, 50],
          [left, 50],
        ]),
      ],
      rule: 'evenodd',
      opacity: 1,
    });
    const left = addMarks(added.doc, leftId, 0, [square(-50)], randomId);
    const both = addMarks(left, added.layerId, 0, [square(0)], randomId);
    const filed = addFolder(both, elementId, 'Both', [leftId, added.layerId], randomId);
    const blur = newLook(filed.doc, 'blur', randomId);
    const soft = { ...blur, numbers: { ...blur.numbers, radius: constant(12) } };
    const onFolder = pixelsOf(addLook(filed.doc, filed.folderId, soft));
    expect(onFolder(100, 100)[3]).toBeGreaterThan(250);
    expect(onFolder(50, 100)[3]).toBeGreaterThan(90);
    expect(onFolder(50, 100)[3]).toBeLessThan(165);
    // On each layer by itself the meeting edges would be soft.
    const onEach = pixelsOf(addLook(addLook(filed.doc, leftId, soft), added.layerId, soft));
    expect(onEach(100, 100)[3]).toBeLessThan(235);
    const faded = setFolder(addLook(filed.doc, filed.folderId, soft), filed.folderId, { opacity: 0.5 });
    expect(pixelsOf(faded)(100, 100)[3]).toBeGreaterThan(120);
    expect(pixelsOf(faded)(100, 100)[3]).toBeLessThan(135);
  });
  test('texture boils on its frames and holds in between', () => {
    const start = looked('texture', { strength: 100, every: 2 }, { moves: 'boils' });
    const doc = setLayer(start, layerOf(start).id, {});
    const text = (frame: number) => {
      const at = pixelsOf(doc, frame);
      return Array.from({ length: 50 }, (_, i) => at(55 + i, 90).join()).join('|');
    };
    expect(text(0)).toBe(text(1));
  });
  test('blurring at reduced size is not told from blurring at full size', () => {
    const source = makeSurface(400, 400);
    source.context.fillStyle = '#ffa62b';
    source.context.fillRect(130, 120, 140, 160);
    for (const deviation of [7, 14, 32]) {
      const fast = blurred(source, deviation, false, makeSurface).context.getImageData(0, 0, 400, 400).data;
      const full = makeSurface(400, 400);
      full.context.filter = `blur(${deviation}px)`;
      full.context.drawImage(source.picture, 0, 0);
      full.context.filter = 'none';
      const exact = full.context.getImageData(0, 0, 400, 400).data;
      let max = 0;
      for (let i = 3; i < exact.length; i += 4) max = Math.max(max, Math.abs(exact[i]! - fast[i]!));
      expect(max).toBeLessThanOrEqual(6);
    }
  });
  test('lines take the colour of the fill beside them, darker', () => {
    const start = base();
    const line = layerOf(start).id;
    const drawn = addMark(start, line, 0, ring(swatchOf(start, 'line'), 60), randomId);
    const { doc } = filled(drawn, line, swatchOf(start, 'flame'));
    const coloured = addLook(doc, line, newLook(doc, 'line colour', randomId));
    const [r, g, b] = pixelsOf(coloured)(100, 41);
    // 45 % darker than the flame.
    expect(Math.abs(r - 0xff * 0.55)).toBeLessThan(8);
    expect(Math.abs(g - 0xa6 * 0.55)).toBeLessThan(8);
    expect(Math.abs(b - 0x2b * 0.55)).toBeLessThan(8);
  });
  test('a matte hides what lies behind it, turned about all else; what is for work only is not taken away', () => {
    const start = base();
    const drawn = addMark(start, layerOf(start).id, 0, square(swatchOf(start, 'flame'), 50), randomId);
    const added = addLayer(drawn, elementOf(drawn).id, 'Front', 'matte', layerOf(drawn).id, randomId);
    const cut = addMark(added.doc, added.layerId, 0, square(swatchOf(start, 'core'), 20), randomId);
    expect(pixelsOf(cut)(100, 100)[3]).toBe(0);
    expect(pixelsOf(cut)(60, 100)[3]).toBe(255);
    const turned = setLayer(cut, added.layerId, { matte: { shot: false, inverted: true } });
    expect(pixelsOf(turned)(100, 100)[3]).toBe(255);
    expect(pixelsOf(turned)(60, 100)[3]).toBe(0);
    expect(pixelsOf(setLayer(drawn, layerOf(drawn).id, { forWork: true }))(100, 100)[3]).toBe(0);
  });
});

describe.each(lookKinds().filter((kind) => LOOKS[kind].paint))('what is drawn, under %s', (kind) => {
  /** How opaque each pixel is of a soft disc, or of what the look makes of it with some choices. */
  const opaque = (choices: Readonly<Record<string, string>> | null): number[] => {
    const source = makeSurface(64, 64);
    const { context } = source;
    context.fillStyle = '#c04020';
    context.beginPath();
    context.arc(32, 32, 17.3, 0, 7);
    context.fill();
    const look = newLook(base(), kind, randomId);
    const looks = resolved([{ ...look, choices: { ...look.choices, ...choices } }], 0, null);
    const [main] = paintedLooks(source, choices ? looks : [], {
      matrix: IDENTITY,
      axis: { from: { x: 32, y: 60 }, to: { x: 32, y: 4 } },
      motion: { x: 6, y: 2 },
      colourOf: () => '#30c0ff',
      below: () => source.picture,
      rough: false,
      make: makeSurface,
    });
    const { data } = main!.picture.context.getImageData(0, 0, 64, 64);
    return Array.from({ length: 64 * 64 }, (_, i) => data[4 * i + 3]!);
  };
  const choices = LOOKS[kind].choices.reduce<Record<string, string>[]>(
    (all, { key, options }) => all.flatMap((each) => options.map((option) => ({ ...each, [key]: option }))),
    [{}],
  );
  test('covers the same where the look says so, and not otherwise', () => {
    const plain = opaque(null);
    const same = choices.map((each) => opaque(each).every((value, i) => value === plain[i]));
    expect(same).toEqual(choices.map(() => LOOKS[kind].keepsShape === true));
  });
});
