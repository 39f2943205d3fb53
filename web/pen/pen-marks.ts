/** What the active pen makes: how it looks while it grows, and the marks it leaves. */
import { newestVersion, tipOf, type Making } from '@tallow/core/brush';
import { randomId, type BrushSettings, type Lays, type Mark, type Swatch } from '@tallow/core/document';
import type { Matrix } from '@tallow/core/geometry';
import { operationOfLays, paintsOf, type Paint } from '@tallow/core/render';
import { layerMatrix, type Current } from '../selection/current.ts';
import { toolState } from '../hand/tool-state.ts';
import { selection } from '../selection/selection.ts';
import { brushKindOf, madeBy, type BrushState, type BrushName } from '../hand/brushes.ts';
import type { Live } from '../picture/compositor.ts';
import { LiveShape } from '../picture/live-shape.ts';
import type { StrokeSetup } from '../picture/stroke-setup.ts';

/** How far the pen goes before a tap becomes a shape, CSS px. */
const TAP = 4;

/** A brush as its strokes keep it: only what differs from plain. */
export function brushOf(tool: BrushName, settings: BrushState): BrushSettings {
  const { width, opacity, pressure, flow, taper, tilt } = settings;
  const kind = brushKindOf(tool, settings);
  const version = newestVersion(kind);
  return {
    kind,
    ...(version > 1 ? { version } : {}),
    width,
    opacity,
    pressure,
    ...(tipOf({ kind, version }).lays === 'stamps' && flow < 1 ? { flow } : {}),
    ...(taper[0] > 0 || taper[1] > 0 ? { taper } : {}),
    ...(tilt > 0 ? { tilt } : {}),
  };
}

/** How the pen's way becomes a stroke. */
/** @param turned whether a key turns level and free lines about. */
export function makingOf(settings: BrushState, turned = false): Making {
  const { form, exact } = toolState();
  return { form, finish: settings.finish, tolerance: settings.tolerance, exact: exact !== turned, points: [] };
}

/** Where the pen's marks go on what the layer holds. */
function laysOf({ active }: Current): Lays | undefined {
  if (toolState().behind) return 'behind';
  return active?.layer.inside ? 'inside' : undefined;
}

/** @param perPixel px of element space in one CSS px. */
export function setupOf(
  now: Current,
  tool: BrushName,
  settings: BrushState,
  swatch: Swatch,
  lines: Swatch | undefined,
  matrix: Matrix,
  perPixel: number,
  turned: boolean,
): StrokeSetup {
  const brush = brushOf(tool, settings);
  const { shapeLine } = toolState();
  const makes = madeBy(tool);
  const lays = makes === 'rub' ? undefined : laysOf(now);
  const layer = now.active?.layer;
  // On a tinted layer all is seen in its tint, whatever it is drawn in.
  const paintOf = layer
    ? paintsOf(now.doc, { layerId: layer.id, matrix: layerMatrix(now, selection().frame), tint: layer.tint })
    : null;
  const seen = (own: Swatch): Paint => paintOf?.(own.id) ?? own.colour;
  const paint = makes === 'rub' ? '#000000' : seen(swatch);
  return {
    brush,
    paint,
    laying: { opacity: brush.opacity, operation: makes === 'rub' ? 'destination-out' : operationOfLays(lays, paint) },
    matrix,
    seed: crypto.getRandomValues(new Uint32Array(1))[0]!,
    steadying: settings.steadying,
    making: makingOf(settings, turned),
    ...(lays ? { lays } : {}),
    ...(makes === 'shape'
      ? {
          shape: {
            line: shapeLine && lines ? { brush: { ...brush, width: shapeLine }, paint: seen(lines) } : null,
            min: TAP * perPixel,
          },
        }
      : {}),
  };
}

/** What the pen has drawn, as marks: a stroke, a rub-out, or a shape with its line. */
export function marksOf(
  tool: BrushName,
  setup: StrokeSetup,
  live: Live,
  swatch: Swatch,
  lines: Swatch | undefined,
): Mark[] {
  const { brush, seed } = setup;
  const { piece } = selection();
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
  return madeBy(tool) === 'rub'
    ? [{ kind: 'rub', id: randomId(), brush, seed, samples }]
    : [{ kind: 'stroke', id: randomId(), swatch: swatch.id, brush, seed, samples, ...lays }];
}
