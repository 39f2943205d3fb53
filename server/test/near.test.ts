/** Frames while something is moved, looked at in pixels: softer than they will be, and nothing else. */
import { nightShift } from '@tallow/demo';
import type { Matrix } from '@tallow/core/geometry';
import { drawFrame, nearly, type RenderContext } from '@tallow/core/render';
import { directRendering, makeSurface } from '../render/canvas.ts';

const [WIDTH, HEIGHT] = [480, 270] as const;
const doc = nightShift();
const VIEW: Matrix = [WIDTH / 1920, 0, 0, WIDTH / 1920, 0, 0];

function frameBy(rendering: RenderContext, frame: number): Uint8ClampedArray {
  const surface = makeSurface(WIDTH, HEIGHT);
  drawFrame(surface, doc, frame, VIEW, rendering, { guides: false, looks: 'all', background: true });
  return surface.context.getImageData(0, 0, WIDTH, HEIGHT).data;
}

/** What is drawn for a frame, as it was asked for. */
function drawnFor(frame: number): { pixels: Uint8ClampedArray; asked: Set<string> } {
  const exact = directRendering(doc);
  const asked = new Set<string>();
  const pictureOf: RenderContext['pictureOf'] = (item, matrix, width, height) => {
    asked.add(`${item.drawing.id} ${matrix.slice(0, 4).join()} ${width}x${height}`);
    return exact.pictureOf(item, matrix, width, height);
  };
  const near = { ...exact, rough: true, near: true, pictureOf: nearly(pictureOf) };
  return { pixels: frameBy(near, frame), asked };
}

test.each([0, 61])('frame %i of the demo shot differs from its picture by less than 3 of 255 on the whole', (frame) => {
  const wanted = frameBy(directRendering(doc), frame);
  const { pixels } = drawnFor(frame);
  let off = 0;
  let far = 0;
  for (let i = 0; i < wanted.length; i++) {
    const by = Math.abs(pixels[i]! - wanted[i]!);
    off += by;
    if (by > 64) far++;
  }
  expect(off / wanted.length).toBeLessThan(3);
  // Edges of lines, half a pixel softer.
  expect(far / wanted.length).toBeLessThan(0.01);
});

test('while the camera zooms and shakes, what the next frame shows too is asked for in the same way', () => {
  const [first, next] = [drawnFor(60).asked, drawnFor(61).asked];
  const same = [...next].filter((each) => first.has(each));
  expect(same.length).toBeGreaterThan(next.size / 2);
});
