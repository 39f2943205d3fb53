/** The element's axis over the picture, from its anchor to its tip, while something that runs along it is set. */
import { find, shotOf, type ShotDocument } from '@tallow/core/document';
import { setElement, setPlan } from '@tallow/core/edit';
import { apply, invert, type Point } from '@tallow/core/geometry';
import { LOOKS } from '@tallow/core/looks';
import { axisOf } from '@tallow/core/render';
import { useRef, type PointerEvent } from 'react';
import { Handle } from '../parts/handle.tsx';
import { useLayerSpace } from '../picture/layer-space.ts';
import { drag } from '../shot/drag.ts';
import { useCurrent } from '../selection/current.ts';
import { useScreen } from '../screen/screen.ts';
import { useToolState } from '../hand/tool-state.ts';

const LINE = '#e3a8c0';

export function AxisHandle() {
  const svg = useRef<SVGSVGElement>(null);
  const sight = useLayerSpace(svg);
  const now = useCurrent();
  const panel = useScreen((s) => s.panel);
  const swatchId = useToolState((s) => s.swatchId);
  const swatch = now && find(now.doc, 'swatch', swatchId);
  const runs =
    panel === 'palette'
      ? swatch?.gradient?.run === 'axis'
      : panel === 'looks'
        ? [now?.active?.layer, now?.active?.folder, now?.element]
            .flatMap((owner) => owner?.finishes ?? [])
            .some(({ kind, choices }) => LOOKS[kind].runsAlongAxis?.(choices) ?? false)
        : false;
  if (!now || !sight || !runs) return <svg ref={svg} className="hidden" />;
  const { from, to } = axisOf(now.element, shotOf(now.doc).height);
  const [a, b] = [apply(sight.matrix, from), apply(sight.matrix, to)];
  const { id } = now.element;
  const pull =
    (name: string, change: (doc: ShotDocument, at: Point) => ShotDocument) =>
    (event: PointerEvent<SVGElement>): void => {
      const { matrix } = sight;
      const box = svg.current!.getBoundingClientRect();
      drag(event, {
        name,
        placeOf: (e) => apply(invert(matrix), { x: e.clientX - box.left, y: e.clientY - box.top }),
        change,
      });
    };
  return (
    <svg ref={svg} className="pointer-events-none absolute inset-0 size-full" data-testid="axis">
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="#14110f" strokeWidth={4} strokeOpacity={0.7} />
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={LINE} strokeWidth={1.6} strokeDasharray="6 4" />
      <Handle
        at={a}
        label="Anchor: where the axis begins"
        cursor="move"
        round={false}
        colour={LINE}
        onDown={pull('anchor', (doc, at) => setPlan(doc, id, { anchor: at }))}
      />
      <Handle
        at={b}
        label="Tip of the axis"
        cursor="move"
        colour={LINE}
        onDown={pull('tip of the axis', (doc, at) => setElement(doc, id, { tip: at }))}
      />
    </svg>
  );
}
