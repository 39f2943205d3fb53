/** What the pen in hand makes: how it looks while it grows, and the marks it leaves. */
import { steadyReach } from '@tallow/core/brush';
import { randomId, type Mark, type Swatch } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import { desk, type BrushInHand, type Tool } from '../state/desk.ts';
import type { Live } from './compositor.ts';
import { LiveShape } from './live-shape.ts';
import type { StrokeSetup } from './live-stroke.ts';

/** How far the pen goes before a tap becomes a shape, CSS px. */
const TAP = 4;

/** @param perPixel px of element space in one CSS px. */
export function setupOf(
  tool: Tool,
  { width, opacity, pressure, steadying }: BrushInHand,
  swatch: Swatch,
  lines: Swatch | undefined,
  matrix: Matrix,
  perPixel: number,
): StrokeSetup {
  const brush = { kind: 'ink' as const, width, opacity, pressure };
  const { shapeLine } = desk();
  return {
    brush,
    colour: tool === 'rub' ? '#000000' : swatch.colour,
    laying: { opacity, operation: tool === 'rub' ? 'destination-out' : 'source-over' },
    matrix,
    reach: steadyReach(steadying),
    ...(tool === 'shape'
      ? {
          shape: {
            line: shapeLine && lines ? { brush: { ...brush, width: shapeLine }, colour: lines.colour } : null,
            least: TAP * perPixel,
          },
        }
      : {}),
  };
}

/** What the pen has drawn, as marks: a stroke, a rub-out, or a shape with its line. */
export function marksOf(tool: Tool, setup: StrokeSetup, live: Live, swatch: Swatch, lines: Swatch | undefined): Mark[] {
  const seed = crypto.getRandomValues(new Uint32Array(1))[0]!;
  const { brush } = setup;
  if (live instanceof LiveShape) {
    const { ring, line } = live.finish();
    const shape: Mark = {
      kind: 'shape',
      id: randomId(),
      swatch: swatch.id,
      rings: [ring],
      rule: 'nonzero',
      opacity: brush.opacity,
    };
    const lineBrush = setup.shape?.line?.brush;
    if (!line || !lineBrush || !lines) return [shape];
    return [shape, { kind: 'stroke', id: randomId(), swatch: lines.id, brush: lineBrush, seed, samples: line }];
  }
  const samples = live.finish();
  return tool === 'rub'
    ? [{ kind: 'rub', id: randomId(), brush, seed, samples }]
    : [{ kind: 'stroke', id: randomId(), swatch: swatch.id, brush, seed, samples }];
}
