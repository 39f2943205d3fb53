/** Haze is smooth: no mesh of stamps, no bands, however faint it is laid. */
import type { BrushSettings, Samples } from '@tallow/core/document';
import { drawStroke, Scratch } from '@tallow/core/render';
import type { Canvas } from '@napi-rs/canvas';
import { makeSurface } from '../render/canvas.ts';

const SIDE = 256;

/** How opaque each pixel of a picture is after strokes of haze. */
function laid(strokes: readonly { samples: Samples; brush: BrushSettings }[]): Uint8ClampedArray {
  const [surface, scratch] = [makeSurface(SIDE, SIDE), new Scratch(makeSurface)];
  strokes.forEach(({ samples, brush }, i) => {
    drawStroke(
      surface,
      scratch,
      { samples, brush, seed: 3 + i },
      { opacity: 1, operation: 'source-over' },
      '#2b2622',
      [1, 0, 0, 1, 0, 0],
    );
  });
  const { data } = (surface.picture as Canvas).getContext('2d').getImageData(0, 0, SIDE, SIDE);
  return Uint8ClampedArray.from({ length: SIDE * SIDE }, (_, i) => data[i * 4 + 3]!);
}

function samplesOf(points: readonly (readonly [number, number])[], pressure: (t: number) => number): Samples {
  return {
    x: Float32Array.from(points, ([x]) => x),
    y: Float32Array.from(points, ([, y]) => y),
    pressure: Float32Array.from(points, (_, i) => pressure(i / Math.max(1, points.length - 1))),
    altitude: new Float32Array(points.length).fill(Math.PI / 2),
    azimuth: new Float32Array(points.length),
  };
}

const haze = (width: number, flow: number): BrushSettings => ({
  kind: 'haze',
  width,
  opacity: 1,
  pressure: true,
  flow,
});
/** One stroke to and fro, far beyond the picture on all sides, so that the field is even inside. */
const field = Array.from({ length: 600 }, (_, i): [number, number] => {
  const row = Math.floor(i / 15);
  const across = (i % 15) / 14;
  return [-120 + 500 * (row % 2 ? 1 - across : across), -80 + row * 11];
});

test('an evenly hazed field has neighbours that differ by at most one level, and no peak in its spectrum', () => {
  const alpha = laid([{ samples: samplesOf(field, () => 1), brush: haze(140, 0.03) }]);
  const mean = alpha.reduce((sum, v) => sum + v, 0) / alpha.length;
  expect(mean).toBeGreaterThan(60);
  expect(mean).toBeLessThan(235);
  let max = 0;
  for (let y = 0; y < SIDE; y++)
    for (let x = 1; x < SIDE; x++) max = Math.max(max, Math.abs(alpha[y * SIDE + x]! - alpha[y * SIDE + x - 1]!));
  expect(max).toBeLessThanOrEqual(1);
  // Amplitudes of waves 2 to 16 px long along rows and along columns: a mesh would stand out at one of them.
  for (const step of [1, SIDE]) {
    for (let waves = SIDE / 16; waves <= SIDE / 2; waves++) {
      let [re, im] = [0, 0];
      for (let line = 0; line < SIDE; line += 29)
        for (let i = 0; i < SIDE; i++) {
          // A window without edges, or the ends of the rows would be heard as a wave.
          const value =
            (alpha[(step === 1 ? line * SIDE : line) + i * step]! - mean) * (1 - Math.cos((2 * Math.PI * i) / SIDE));
          re += value * Math.cos((2 * Math.PI * waves * i) / SIDE);
          im += value * Math.sin((2 * Math.PI * waves * i) / SIDE);
        }
      expect((2 * Math.hypot(re, im)) / (SIDE * 9)).toBeLessThan(0.25);
    }
  }
});

test('one percent of flow, gone over again and again, fades by single levels over 200 px', () => {
  const PASSES = 12;
  const points = Array.from({ length: PASSES * 101 }, (_, i): [number, number] => {
    const [pass, at] = [Math.floor(i / 101), i % 101];
    return [28 + 2 * (pass % 2 ? 100 - at : at), 128];
  });
  const pressed = samplesOf(points, () => 0);
  const samples = { ...pressed, pressure: pressed.x.map((x) => (x - 28) / 200) };
  const alpha = laid([{ samples, brush: haze(120, 0.01) }]);
  const along = Array.from({ length: 200 }, (_, i) => alpha[128 * SIDE + 28 + i]!);
  expect(along.at(-30)!).toBeGreaterThan(40);
  for (let i = 1; i < along.length; i++) expect(Math.abs(along[i]! - along[i - 1]!)).toBeLessThanOrEqual(1);
});
