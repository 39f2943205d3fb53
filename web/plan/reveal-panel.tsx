/** Revealing the strokes of the drawing shown along their length, and taking them away again. */
import { find, randomId } from '@tallow/core/document';
import { revealDrawing } from '@tallow/core/edit';
import { revealCount } from '@tallow/core/plan';
import { useState } from 'react';
import { Button } from '../parts/button.tsx';
import { Slider } from '../parts/slider.tsx';
import { shownNow, type Current } from '../selection/current.ts';
import { setSelection, useSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { selectPlanned } from './plan.ts';
import { Words } from '../parts/choice.tsx';
import { Heading } from '../parts/panel.tsx';
import { withDrawings } from '../saving/drawings.ts';

export function RevealPanel({ now }: { now: Current }) {
  const frame = useSelection((s) => s.frame);
  const [comes, setComes] = useState(6);
  const [goes, setGoes] = useState(6);
  const [overlap, setOverlap] = useState(2);
  const [hold, setHold] = useState(1);
  const shown = shownNow(now, frame);
  const drawing = find(now.doc, 'drawing', shown?.drawingId);
  const strokes = drawing?.order.filter((id) => drawing.marks[id]!.kind === 'stroke').length ?? 0;
  const revealing = { comes, goes, overlap: Math.min(overlap, comes) };
  const count = revealCount(revealing);
  const layer = now.active?.layer.name ?? '';
  const whyNot = strokes === 0 ? 'The drawing shown has no stroke. Go to one that has, on the layer it is on.' : null;
  const lay = (): void => {
    if (!shown) return;
    withDrawings([shown.drawingId], () => {
      let made = '';
      edit('reveal strokes', (doc) => {
        const laid = revealDrawing(doc, now.element.id, shown.drawingId, revealing, frame, hold, randomId);
        made = laid.layerId;
        return laid.doc;
      });
      setSelection({ layerId: made, selectedRuns: null });
      selectPlanned(null);
    });
  };
  return (
    <>
      <Heading>Reveal strokes</Heading>
      <p className="pb-1 text-[13px] text-wax-500">
        {strokes === 0
          ? (whyNot ?? '')
          : `The ${strokes === 1 ? 'stroke' : `${strokes} strokes`} of the drawing shown on ${layer}, drawn along ${strokes === 1 ? 'its' : 'their'} length on a new layer.`}
      </p>
      <Slider label="Comes in" unit="dr" min={1} max={48} value={comes} onMove={setComes} />
      <Slider label="Goes in" unit="dr" min={0} max={48} value={goes} onMove={setGoes} title="0 stays" />
      <Slider
        label="The two overlap"
        unit="dr"
        min={0}
        max={Math.max(1, comes)}
        value={Math.min(overlap, comes)}
        onMove={setOverlap}
      />
      <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
        Held
        <Words
          label="Held"
          value={String(hold)}
          choices={[1, 2, 3].map((n) => ({ value: String(n), label: `on ${n}s` }))}
          onChoose={(value) => {
            setHold(Number(value));
          }}
        />
      </div>
      <Button look="primary" className="my-2 w-full" whyNot={whyNot} onClick={lay}>
        Lay {count} drawings
      </Button>
    </>
  );
}
