/** Variants side by side: each runs small, the one shown now among them; in turn in the picture when played. */
import { find, shotOf, type ShotDocument, type Variant } from '@tallow/core/document';
import { nameVariant, variantsOf } from '@tallow/core/edit';
import { withVariant } from '@tallow/core/render';
import { elementLength, timedLayers } from '@tallow/core/timing';
import { Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { Words } from '../parts/choice.tsx';
import { Check, Panel, Small } from '../parts/panel.tsx';
import { useCurrent, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { playback, setPlayback, usePlayback } from '../playback/playback.ts';
import { runSmallLoop } from '../playback/small-loop.ts';
import { edit } from '../shot/document.ts';
import { boxOfLayers, miniature, movingOf, sheetsAt } from '../picture/miniatures.ts';
import { showPanel } from '../screen/panels.ts';
import { keepThisVariant, releaseVariant, scopeOf, show } from './variants.ts';
import { titleOf } from '../actions/key-text.ts';
import { TIME_ACTIONS } from './actions.ts';

const SIDE = 96;

/** What a variant shows, running round small. */
function Running({ now, variant }: { now: Current; variant: Variant }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return undefined;
    const doc: ShotDocument = variant.held ? withVariant(now.doc, variant.id) : now.doc;
    const element = find(doc, 'element', now.element.id)!;
    const length = elementLength(doc, element);
    const layers = movingOf(timedLayers(doc, element));
    const box = boxOfLayers(
      doc,
      layers.map(({ layer }) => layer),
    );
    if (!box) return undefined;
    const side = SIDE * devicePixelRatio;
    const { rate } = shotOf(doc);
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    let last = -1;
    return runSmallLoop((time) => {
      const { frame: own } = selection();
      const { speed } = playback();
      const frame = calm ? own % length : Math.floor((time * rate * speed) / 1000) % length;
      const bitmap =
        frame === last ? undefined : miniature(doc, sheetsAt(layers, element, frame, length), box, side, side);
      if (bitmap) {
        last = frame;
        context.clearRect(0, 0, side, side);
        context.drawImage(bitmap, 0, 0);
      }
      return calm || frame !== last ? 'follows' : rate * speed;
    });
  }, [now, variant]);
  const side = SIDE * devicePixelRatio;
  return <canvas ref={canvas} width={side} height={side} style={{ width: SIDE, height: SIDE }} />;
}

function Card({ now, variant }: { now: Current; variant: Variant }) {
  const [naming, setNaming] = useState(false);
  const shown = variant.held === null;
  const doc = shown ? now.doc : withVariant(now.doc, variant.id);
  const length = elementLength(doc, find(doc, 'element', now.element.id)!);
  return (
    <div
      data-variant={variant.name}
      data-shown={shown || undefined}
      className={`flex w-[108px] flex-col rounded-[10px] p-1.5 ${shown ? 'bg-flame-deep ring-1 ring-flame' : 'bg-soot-800'}`}
    >
      <button
        type="button"
        aria-pressed={shown}
        aria-label={`Show variant ${variant.name}`}
        className="rounded-md bg-soot-950"
        onClick={() => {
          show(variant);
        }}
      >
        <Running now={now} variant={variant} />
      </button>
      <div className="flex h-8 items-center gap-1">
        {naming ? (
          <NameField
            label="Variant name"
            value={variant.name}
            onDone={(name) => {
              setNaming(false);
              if (name && name !== variant.name) edit('name variant', (d) => nameVariant(d, variant.id, name));
            }}
          />
        ) : (
          <button
            type="button"
            data-tip="Click to rename"
            className={`font-name min-w-0 flex-1 truncate text-left ${shown ? 'text-flame' : ''}`}
            onClick={() => {
              setNaming(true);
            }}
          >
            {variant.name}
          </button>
        )}
        <span className="font-mono text-xs text-wax-500">{length} f</span>
        {shown ? null : (
          <button
            type="button"
            aria-label={`Let variant ${variant.name} go`}
            data-tip="Let it go (undo brings it back)"
            className="moves grid size-6 place-items-center rounded text-wax-500 hover:text-wax-100"
            onClick={() => {
              releaseVariant(variant);
            }}
          >
            <Trash2 size={13} />
          </button>
        )}
      </div>
    </div>
  );
}

export function VariantsPanel() {
  const now = useCurrent();
  const inTurn = usePlayback((s) => s.inTurn);
  const [whole, setWhole] = useState(true);
  if (!now) return null;
  const all = variantsOf(now.doc, now.element.id);
  const groups = new Map<string, Variant[]>();
  for (const each of all) {
    const key = [...each.scope].sort().join();
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  return (
    <Panel
      label="Variants"
      testId="variants-panel"
      heading="Variants"
      onBack={() => {
        showPanel(null);
      }}
    >
      <p className="pb-1 text-[13px] text-wax-500">
        {all.length === 0
          ? 'Keep the timing and drawings as they are, then try something else: neither is lost.'
          : `${titleOf(TIME_ACTIONS.nextVariant, 'Next variant')}, while it plays too.`}
      </p>
      {[...groups].map(([key, variants]) => (
        <div key={key} className="pb-2">
          {groups.size > 1 || variants[0]!.scope.length < now.layers.length ? (
            <p className="truncate pb-1 text-xs text-wax-500">
              {variants[0]!.scope.flatMap((id) => find(now.doc, 'layer', id)?.name ?? []).join(', ')}
            </p>
          ) : null}
          <div className="flex flex-wrap gap-1.5">
            {variants.map((variant) => (
              <Card key={variant.id} now={now} variant={variant} />
            ))}
          </div>
        </div>
      ))}
      <div className="flex items-center justify-between">
        <Words
          label="What is kept"
          value={whole ? 'element' : 'layer'}
          choices={[
            { value: 'element', label: 'element' },
            { value: 'layer', label: scopeOf(false).length > 1 ? 'tied layers' : 'this layer' },
          ]}
          onChoose={(value) => {
            setWhole(value === 'element');
          }}
        />
        <Small
          title="Keeps what there is now; you go on with the next"
          whyNot={now.active ? null : 'There is no layer. Add one first.'}
          onClick={() => {
            keepThisVariant(whole);
          }}
        >
          Keep a variant
        </Small>
      </div>
      <Check
        label="Play them in turn"
        title="Each for one turn of its own"
        checked={inTurn}
        onChange={(on) => {
          setPlayback({ inTurn: on && all.length > 1 });
        }}
      />
    </Panel>
  );
}
