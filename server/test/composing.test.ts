/** How layers, folders and elements lie on one another, looked at in pixels: known answers within 2 of 255. */
import type { Canvas } from '@napi-rs/canvas';
import { polygonRing, seededIds } from '@tallow/core/geometry';
import { newShotDocument, shotOf, type Blend, type Shape, type ShotDocument, entitiesOf } from '@tallow/core/document';
import {
  addElement,
  addFolder,
  addLayer,
  addMark,
  addSwatch,
  setFolder,
  setLayer,
  raisePlacement,
  setStart,
} from '@tallow/core/edit';
import { DIMMED, type DrawOptions } from '@tallow/core/render';
import { frameDrawer, wholeShot } from '../render/frames.ts';

const newId = seededIds(90);
const base = newShotDocument(
  newId(),
  { name: 'T', width: 40, height: 40, rate: 24, length: 4, background: '#000000' },
  newId,
);
const element = entitiesOf(base, 'element')[0]!;
const lowest = element.layers[0]!;

type Corner = readonly [number, number];
const square = (from: number, to: number): Corner[] => [
  [from, from],
  [to, from],
  [to, to],
  [from, to],
];
const WHOLE = square(-20, 20);

/** Puts a shape of a colour on a layer. */
function painted(
  doc: ShotDocument,
  layer: string,
  colour: string,
  corners: readonly Corner[] = WHOLE,
  more: Partial<Shape> = {},
): ShotDocument {
  const { doc: withSwatch, swatchId } = addSwatch(doc, { name: 's', role: 'body', colour }, newId);
  const rings = [polygonRing(corners.map(([x, y]): [number, number] => [x, y]))];
  const mark: Shape = { kind: 'shape', id: newId(), swatch: swatchId, rings, rule: 'nonzero', opacity: 1, ...more };
  return addMark(withSwatch, layer, 0, mark, newId);
}

/** The colour in the middle of a frame. */
function middle(doc: ShotDocument, options: DrawOptions = { guides: false }, frame = 0): number[] {
  const picture = frameDrawer(doc, { ...wholeShot(doc, true), options }).draw(frame).picture as Canvas;
  return [...picture.getContext('2d').getImageData(20, 20, 1, 1).data].slice(0, 3);
}
function expectColour(got: readonly number[], wanted: readonly number[]): void {
  got.forEach((value, i) => {
    expect(Math.abs(value - wanted[i]!)).toBeLessThanOrEqual(2);
  });
}

const upper = addLayer(painted(base, lowest, '#c80000'), element.id, 'Upper', 'body', lowest, newId);
const both = painted(upper.doc, upper.layerId, '#0000c8');

describe('blends', () => {
  const over = (blend: Blend) => {
    const grey = painted(base, lowest, '#404040');
    const { doc, layerId } = addLayer(grey, element.id, 'Light', 'glow', lowest, newId);
    return middle(setLayer(painted(doc, layerId, '#806020'), layerId, { blend }));
  };
  test('follow the W3C formulas', () => {
    expectColour(over('normal'), [128, 96, 32]);
    expectColour(over('lighter'), [192, 160, 96]);
    expectColour(over('screen'), [160, 136, 88]);
    expectColour(over('multiply'), [32, 24, 8]);
    // Dodge: what lies under, divided by what the light leaves.
    expectColour(over('color-dodge'), [128, 103, 73]);
  });
});

describe('folders', () => {
  const put = addFolder(both, element.id, 'Parts', [upper.layerId, lowest], newId);
  const at = (opacity: number) => middle(setFolder(put.doc, put.folderId, { opacity }));
  test('fade as one picture: what is hidden inside stays hidden', () => {
    expectColour(at(1), [0, 0, 200]);
    expectColour(at(0.5), [0, 0, 100]);
    expectColour(at(0), [0, 0, 0]);
  });
  test('fade layers that are faded themselves once more', () => {
    const half = setLayer(put.doc, upper.layerId, { opacity: 0.5 });
    expectColour(middle(half), [100, 0, 100]);
    expectColour(middle(setFolder(half, put.folderId, { opacity: 0.5 })), [50, 0, 50]);
  });
  test('hide all that lies in them', () => {
    expectColour(middle(setFolder(put.doc, put.folderId, { visible: false })), [0, 0, 0]);
  });
});

describe('attending to one layer', () => {
  test('alone it is shown even where it is hidden or covered', () => {
    const hidden = setLayer(both, lowest, { visible: false });
    expectColour(middle(hidden, { guides: false, alone: lowest }), [200, 0, 0]);
    expectColour(middle(hidden), [0, 0, 200]);
  });
  test('the others are dimmed by the same amount, and the document is not touched', () => {
    const before = JSON.stringify(both);
    expectColour(middle(both, { guides: false, dimBut: lowest }), [200 * (1 - DIMMED), 0, 200 * DIMMED]);
    expect(JSON.stringify(both)).toBe(before);
  });
});

describe('shapes', () => {
  /** Goes twice round the middle. */
  const twice: Corner[] = [...square(-15, 15), ...square(-10, 10)];
  test('drawn by hand are filled wherever they cross themselves; computed ones hold holes', () => {
    expectColour(middle(painted(base, lowest, '#ffffff', twice, { rule: 'nonzero' })), [255, 255, 255]);
    expectColour(middle(painted(base, lowest, '#ffffff', twice, { rule: 'evenodd' })), [0, 0, 0]);
  });
  test('have an opacity of their own', () => {
    expectColour(middle(painted(base, lowest, '#c8c8c8', WHOLE, { opacity: 0.25 })), [50, 50, 50]);
  });
});

describe('elements', () => {
  const second = addElement(both, 'Front', 0, newId);
  const layer = entitiesOf(second.doc, 'layer').find((e) => e.elementId === second.elementId)!.id;
  const two = painted(second.doc, layer, '#00c800');
  test('are drawn in the order they are placed, and alone when one is asked for', () => {
    expectColour(middle(two), [0, 200, 0]);
    expectColour(
      middle(
        raisePlacement(two, entitiesOf(two, 'placement').find((each) => each.elementId === second.elementId)!.id, 1),
      ),
      [0, 0, 200],
    );
    expectColour(middle(two, { guides: false, element: element.id }), [0, 0, 200]);
  });
  test('do not show before they begin', () => {
    const placement = entitiesOf(two, 'placement').find((e) => e.elementId === second.elementId)!;
    const later = setStart(two, placement.id, 1);
    expectColour(middle(later, undefined, 0), [0, 0, 200]);
    expectColour(middle(later, undefined, 1), [0, 200, 0]);
  });
  test('the palette is the shot’s', () => {
    expect(shotOf(two).swatches.length).toBeGreaterThan(shotOf(base).swatches.length);
  });
});
