/** The settings of the selected guide. */
import { shotOf, type Guide } from '@tallow/core/document';
import { deleteGuide, setGuide, type GuideSettings } from '@tallow/core/edit';
import { apply, invert } from '@tallow/core/geometry';
import { Lock, Trash2, Unlock } from 'lucide-react';
import { Slider } from '../parts/slider.tsx';
import { homeMatrix, shotFrameOf, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { edit, endGesture } from '../shot/document.ts';
import { selectPlanned } from './plan.ts';
import { Words } from '../parts/choice.tsx';
import { Check, Heading, Small } from '../parts/panel.tsx';
import { TypedField } from '../parts/typed-field.tsx';

export function GuidePanel({ now, guide }: { now: Current; guide: Guide }) {
  const set = (name: string, settings: GuideSettings, gesture?: string): void => {
    edit(name, (doc) => setGuide(doc, guide.id, settings), gesture);
  };
  const shot = shotOf(now.doc);
  const longest = guide.elementId ? Math.max(now.length, 48) : shot.length;
  const { span } = guide;
  const frame = guide.elementId ? selection().frame : shotFrameOf(now, selection().frame, selection().turn);
  return (
    <>
      <Heading
        aside={
          <span className="flex gap-1">
            <Small
              title={guide.locked ? 'Unlock' : 'Lock: it cannot be moved'}
              onClick={() => {
                set(guide.locked ? 'unlock guide' : 'lock guide', { locked: !guide.locked });
              }}
            >
              {guide.locked ? <Lock size={14} /> : <Unlock size={14} />}
            </Small>
            <Small
              title="Delete this guide"
              onClick={() => {
                edit('delete guide', (doc) => deleteGuide(doc, guide.id));
                selectPlanned(null);
              }}
            >
              <Trash2 size={14} />
            </Small>
          </span>
        }
      >
        {guide.name}
      </Heading>
      <TypedField
        key={guide.id}
        className="field !h-8 w-full"
        label="Guide name"
        value={guide.name}
        maxLength={80}
        onTake={(typed) => {
          const name = typed.trim();
          if (name && name !== guide.name) set('guide name', { name });
        }}
      />
      <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
        Kept
        <Words
          label="Kept"
          value={guide.form}
          choices={[
            { value: 'level', label: 'level' },
            { value: 'plumb', label: 'plumb' },
            { value: 'line', label: 'free' },
            { value: 'grid', label: 'grid' },
          ]}
          onChoose={(form) => {
            set('guide form', { form });
          }}
        />
      </div>
      {guide.form === 'plumb' ? null : (
        <Slider
          label="Height"
          unit="px"
          min={-shot.height}
          max={shot.height * 2}
          value={guide.y}
          onMove={(y) => {
            set('guide', { y, toY: guide.toY + y - guide.y }, `guide-${guide.id}`);
          }}
          onDone={endGesture}
        />
      )}
      {guide.form === 'level' ? null : (
        <Slider
          label="Across"
          unit="px"
          min={-shot.width}
          max={shot.width * 2}
          value={guide.x}
          onMove={(x) => {
            set('guide', { x, toX: guide.toX + x - guide.x }, `guide-${guide.id}`);
          }}
          onDone={endGesture}
        />
      )}
      <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
        For
        <Words
          label="For"
          value={guide.elementId ? 'element' : 'shot'}
          choices={[
            { value: 'shot', label: 'the whole shot' },
            { value: 'element', label: 'this element' },
          ]}
          onChoose={(whose) => {
            if ((whose === 'element') === (guide.elementId !== null)) return;
            const home = homeMatrix(now, selection().frame);
            const way = whose === 'element' ? invert(home) : home;
            const [from, to] = [apply(way, guide), apply(way, { x: guide.toX, y: guide.toY })];
            set('whose guide', {
              elementId: whose === 'element' ? now.element.id : null,
              x: from.x,
              y: from.y,
              toX: to.x,
              toY: to.y,
              span: null,
            });
          }}
        />
      </div>
      <Check
        label="Seen throughout"
        checked={span === null}
        onChange={(throughout) => {
          set(throughout ? 'guide throughout' : 'guide for a span', {
            span: throughout
              ? null
              : { from: Math.min(frame, longest - 1), length: Math.max(1, Math.min(12, longest - frame)) },
          });
        }}
      />
      {span ? (
        <>
          <Slider
            label="Seen from"
            unit="fr"
            min={1}
            max={longest}
            value={span.from + 1}
            onMove={(from) => {
              set('guide span', { span: { ...span, from: Math.round(from) - 1 } }, `span-${guide.id}`);
            }}
            onDone={endGesture}
          />
          <Slider
            label="For"
            unit="fr"
            min={1}
            max={longest}
            value={span.length}
            onMove={(length) => {
              set('guide span', { span: { ...span, length: Math.round(length) } }, `span-${guide.id}`);
            }}
            onDone={endGesture}
          />
        </>
      ) : null}
      <p className="py-1 text-xs text-wax-500">
        {guide.elementId ? 'Moves with the element. Never exported.' : 'Never exported.'}
      </p>
    </>
  );
}
