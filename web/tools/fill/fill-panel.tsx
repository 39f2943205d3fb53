/** Filling: what the pen does, what bounds, gaps, how far under the line, through the drawings, and what needs a look. */
import { FILL_BOUNDS, type FillBounds } from '@tallow/core/edit';
import { Words } from '../../parts/choice.tsx';
import { Check, Line, Panel, SelectRow, Small } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { useCurrent } from '../../selection/current.ts';
import { useSelection } from '../../selection/selection.ts';
import { useToolState } from '../../hand/tool-state.ts';
import { showPanel } from '../../screen/panels.ts';
import { fillingNow, MAX_GAP, setFill, useFill, whyNotFill, type FillMode } from '../../fills/fill.ts';
import { fillMany } from '../../fills/laying.ts';
import { fillAgain, useStale } from '../../fills/through.ts';
import { Through } from './fill-through.tsx';

const MODES: readonly { value: FillMode; label: string; tip: string }[] = [
  { value: 'region', label: 'pour', tip: 'Fills the region under the pen, and those it is drawn across' },
  { value: 'lasso', label: 'ring', tip: 'Fills the regions that lie in a way drawn round them' },
  { value: 'unfill', label: 'empty', tip: 'Takes the fill away, or cuts a hole for this region' },
  { value: 'repaint', label: 'change', tip: 'Gives a fill the swatch in hand' },
];

const BOUND_WORDS: Readonly<Record<FillBounds, string>> = {
  this: 'the lines of this layer',
  above: 'the lines of layers above the fill',
  visible: 'all visible lines',
};

export function FillPanel() {
  const now = useCurrent();
  const { mode, bounds, gap, toMiddle, under, fillsClosed } = useFill();
  const stale = useStale((s) => s.stale);
  useSelection((s) => s.frame);
  useToolState((s) => s.swatchId);
  if (!now) return null;
  const whyNot = whyNotFill(now);
  const place = fillingNow(now);
  const target = now.layers.find(({ layer }) => layer.id === place?.layerId)?.layer;
  return (
    <Panel
      label="Fill"
      testId="fill-panel"
      heading="Fill"
      onBack={() => {
        showPanel(null);
      }}
    >
      <p className={`pb-1 text-[13px] ${whyNot ? 'text-warn' : 'text-wax-500'}`} data-testid="fill-where">
        {whyNot ?? (target ? `Onto “${target.name}”.` : 'Onto a fill layer, made under these lines.')}
      </p>
      <div className="-mx-1 flex">
        <Words
          label="The pen"
          value={mode}
          choices={MODES}
          onChoose={(value) => {
            setFill({ mode: value });
          }}
        />
      </div>
      <Slider
        label="Gap"
        title="Gaps in the line up to this wide are closed"
        value={gap}
        min={0}
        max={Math.max(MAX_GAP, gap)}
        unit="px"
        onMove={(v) => {
          setFill({ gap: Math.round(v) });
        }}
      />
      <div className="flex items-center justify-between">
        <Small
          pressed={mode === 'closing'}
          title="The pen draws a line that bounds and is never part of the picture"
          onClick={() => {
            setFill({ mode: mode === 'closing' ? 'region' : 'closing' });
          }}
        >
          Bridge a gap
        </Small>
        {mode === 'closing' ? (
          <Check
            label="Fill what it closes"
            checked={fillsClosed}
            onChange={(on) => {
              setFill({ fillsClosed: on });
            }}
          />
        ) : null}
      </div>
      <SelectRow
        label="Bounded by"
        value={bounds}
        options={FILL_BOUNDS.map((each) => ({ value: each, label: BOUND_WORDS[each] }))}
        onChoose={(value) => {
          setFill({ bounds: value as FillBounds });
        }}
      />
      <div className="flex items-center justify-between text-[13px] text-wax-300">
        Under the line
        <span className="flex items-center">
          <Words
            label="Under the line"
            value={toMiddle ? 'middle' : 'px'}
            choices={[
              { value: 'middle', label: 'to its middle' },
              { value: 'px', label: 'px' },
            ]}
            onChoose={(value) => {
              setFill({ toMiddle: value === 'middle' });
            }}
          />
          {toMiddle ? null : (
            <input
              aria-label="px under the line"
              className="field !h-8 w-12 px-1 text-right font-mono text-xs"
              inputMode="numeric"
              value={under}
              onChange={(event) => {
                const n = Number(event.target.value);
                if (n >= 0 && n <= 200) setFill({ under: n });
              }}
              onKeyDown={(event) => {
                event.stopPropagation();
              }}
            />
          )}
        </span>
      </div>
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small title="Every region that lines enclose" whyNot={whyNot} onClick={() => void fillMany('all')}>
          All regions
        </Small>
        <Small
          title="Lines and all they enclose, as one shape"
          whyNot={whyNot}
          onClick={() => void fillMany('silhouette')}
        >
          All but the outside
        </Small>
      </div>
      <Line />
      {stale.length > 0 ? (
        <div className="flex h-9 items-center justify-between text-[13px] text-warn" data-testid="fill-stale">
          <span>
            {stale.length === 1 ? 'One drawing’s' : `${stale.length} drawings’`} lines changed since it was filled
          </span>
          <Small title="What was changed by hand stays" onClick={() => void fillAgain()}>
            Fill again
          </Small>
        </div>
      ) : null}
      <Through now={now} />
    </Panel>
  );
}
