/** What the pen in hand makes: how it looks while it grows, and the marks it leaves. */
import type { Making } from '@tallow/core/brush';
import { randomId, type BrushKind, type BrushSettings, type Lays, type Mark, type Swatch } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import { operationOfLays, paintsOf, type Paint } from '@tallow/core/render';
import { layerMatrix, type Current } from '../state/current.ts';
import { desk, type BrushInHand, type Tool } from '../state/desk.ts';
import type { Live } from './compositor.ts';
import { LiveShape } from './live-shape.ts';
import type { StrokeSetup } from './stroke-setup.ts';

/** How far the pen goes before a tap becomes a shape, CSS px. */
const TAP = 4;

/** The tip a tool draws with: shapes have an ink line, and any tip rubs out. */
export const tipOf = (tool: Tool, { tip }: BrushInHand): BrushKind =>
  tool === 'rub' ? tip : tool === 'shape' ? 'ink' : tool;

/** A brush in hand as its strokes keep it: only what differs from plain. */
export function brushOf(tool: Tool, inHand: BrushInHand): BrushSettings {
  const { width, opacity, pressure, flow, taper, tilt } = inHand;
  const kind = tipOf(tool, inHand);
  return {
    kind,
    width,
    opacity,
    pressure,
    ...(kind === 'haze' && flow < 1 ? { flow } : {}),
    ...(taper[0] > 0 || taper[1] > 0 ? { taper } : {}),
    ...(tilt > 0 ? { tilt } : {}),
  };
}

/** How the pen's way becomes a stroke. */
/** @param turned whether a key turns level and free lines about. */
export function makingOf(inHand: BrushInHand, turned = false): Making {
  const { form, exact } = desk();
  return { form, finish: inHand.finish, tolerance: inHand.tolerance, exact: exact !== turned, points: [] };
}

/** Where the pen's marks go on what the layer holds. */
export function laysOf({ active }: Current): Lays | undefined {
  if (desk().behind) return 'behind';
  return active?.layer.inside ? 'inside' : undefined;
}

/** @param perPixel px of element space in one CSS px. */
export function setupOf(
  now: Current,
  tool: Tool,
  inHand: BrushInHand,
  swatch: Swatch,
  lines: Swatch | undefined,
  matrix: Matrix,
  perPixel: number,
  turned: boolean,
): StrokeSetup {
  const brush = brushOf(tool, inHand);
  const { shapeLine } = desk();
  const lays = tool === 'rub' ? undefined : laysOf(now);
  const layer = now.active?.layer;
  // On a tinted layer all is seen in its tint, whatever it is drawn in.
  const paintOf = layer
    ? paintsOf(now.doc, { layerId: layer.id, matrix: layerMatrix(now, desk().frame), tint: layer.tint })
    : null;
  const seen = (own: Swatch): Paint => paintOf?.(own.id) ?? own.colour;
  return {
    brush,
    paint: tool === 'rub' ? '#000000' : seen(swatch),
    laying: { opacity: brush.opacity, operation: tool === 'rub' ? 'destination-out' : operationOfLays(lays) },
    matrix,
    seed: crypto.getRandomValues(new Uint32Array(1))[0]!,
    steadying: inHand.steadying,
    making: makingOf(inHand, turned),
    ...(lays ? { lays } : {}),
    ...(tool === 'shape'
      ? {
          shape: {
            line: shapeLine && lines ? { brush: { ...brush, width: shapeLine }, paint: seen(lines) } : null,
            least: TAP * perPixel,
          },
        }
      : {}),
  };
}

/** What the pen has drawn, as marks: a stroke, a rub-out, or a shape with its line. */
export function marksOf(tool: Tool, setup: StrokeSetup, live: Live, swatch: Swatch, lines: Swatch | undefined): Mark[] {
  const { brush, seed } = setup;
  const { piece } = desk();
  const lays = { ...(setup.lays ? { lays: setup.lays } : {}), ...(piece === null ? {} : { piece }) };
  if (live instanceof LiveShape) {
    const { ring, line } = live.finish();
    const shape: Mark = {
      kind: 'shape',
      id: randomId(),
      swatch: swatch.id,
      rings: [ring],
      rule: 'nonzero',
      opacity: brush.opacity,
      ...lays,
    };
    const lineBrush = setup.shape?.line?.brush;
    if (!line || !lineBrush || !lines) return [shape];
    const round: Mark = {
      kind: 'stroke',
      id: randomId(),
      swatch: lines.id,
      brush: lineBrush,
      seed,
      samples: line,
      ...lays,
    };
    return setup.lays === 'behind' ? [round, shape] : [shape, round];
  }
  const samples = live.finish();
  return tool === 'rub'
    ? [{ kind: 'rub', id: randomId(), brush, seed, samples }]
    : [{ kind: 'stroke', id: randomId(), swatch: swatch.id, brush, seed, samples, ...lays }];
}
