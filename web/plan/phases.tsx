/** Phases of the active element: a bar of named spans whose ends are dragged, each with its usual hold. */
import { randomId, type Phase } from '@tallow/core/document';
import { setPlan } from '@tallow/core/edit';
import { PHASE_SETS, phasesFrom, timedPhases } from '@tallow/core/plan';
import { Maximize2, Minimize2, Plus, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState } from 'react';
import { ITEM, Menu } from '../parts/menu.tsx';
import type { Current } from '../selection/current.ts';
import { selection, setSelection, useSelection } from '../selection/selection.ts';
import { edit } from '../shot/document.ts';
import { phaseColour } from '../time/phases.ts';
import { goTo } from '../playback/playhead.ts';
import { drag } from '../shot/drag.ts';
import { Words } from '../parts/choice.tsx';
import { Heading, Small } from '../parts/panel.tsx';
import { TypedField } from '../parts/typed-field.tsx';

export function Phases({ now }: { now: Current }) {
  const { element } = now;
  const { phases } = element;
  const [chosen, setChosen] = useState<string | null>(null);
  const opened = useSelection((s) => s.phaseId);
  const bar = useRef<HTMLDivElement>(null);
  const timed = timedPhases(phases);
  const whole = phases.reduce((sum, p) => sum + p.length, 0);
  const own = timed.find((p) => p.id === chosen);
  const set = (name: string, next: readonly Phase[]): void => {
    edit(name, (doc) => setPlan(doc, element.id, { phases: next }));
  };
  const change = (name: string, settings: Partial<Phase>): void => {
    set(
      name,
      phases.map((p) => (p.id === chosen ? { ...p, ...settings } : p)),
    );
  };
  const dragEnd = (event: React.PointerEvent, index: number): void => {
    const box = bar.current!.getBoundingClientRect();
    const perFrame = box.width / whole;
    const [first, second] = [phases[index]!, phases[index + 1]!];
    drag(event, {
      placeOf: (e) => ({ x: e.clientX, y: 0 }),
      name: 'phase',
      change: (doc, p, from) => {
        const by = Math.round((p.x - from.x) / perFrame);
        const moved = Math.max(1 - first.length, Math.min(second.length - 1, by));
        return setPlan(doc, element.id, {
          phases: phases.map((each, i) =>
            i === index
              ? { ...each, length: each.length + moved }
              : i === index + 1
                ? { ...each, length: each.length - moved }
                : each,
          ),
        });
      },
    });
  };
  return (
    <section aria-label="Phases">
      <Heading
        aside={
          <span className="flex gap-1">
            <Menu
              label="From a kind of effect: its phases"
              className="flex h-8 items-center rounded-lg px-2 text-[13px] text-wax-500 hover:bg-soot-800 hover:text-wax-100"
              trigger="From a kind"
            >
              {PHASE_SETS.map((kind) => (
                <DropdownMenu.Item
                  key={kind.name}
                  className={ITEM}
                  onSelect={() => {
                    set(
                      `phases of ${kind.name.toLowerCase()}`,
                      phasesFrom(kind, Math.max(kind.phases.length, now.length > 1 ? now.length : 24), randomId),
                    );
                  }}
                >
                  {kind.name}
                  <span className="text-xs text-wax-500">
                    {kind.phases.map((p) => p.name.toLowerCase()).join(', ')}
                  </span>
                </DropdownMenu.Item>
              ))}
            </Menu>
            <Small
              title="One more phase after the last"
              onClick={() => {
                const id = randomId();
                set('phase', [...phases, { id, name: `Phase ${phases.length + 1}`, length: 8, hold: 2 }]);
                setChosen(id);
              }}
            >
              <Plus size={14} /> Add
            </Small>
          </span>
        }
      >
        Phases
      </Heading>
      {phases.length === 0 ? (
        <p className="pb-2 text-[13px] text-wax-500">
          Named spans with a hold of their own. Starters can be laid by them.
        </p>
      ) : (
        <div ref={bar} className="relative flex h-8 gap-[2px]" data-testid="phases">
          {timed.map((phase, i) => (
            <div key={phase.id} className="relative min-w-0" style={{ flexGrow: phase.length, flexBasis: 0 }}>
              <button
                type="button"
                aria-pressed={chosen === phase.id}
                data-tip={`${phase.name}: frames ${phase.from + 1} to ${phase.from + phase.length}, on ${phase.hold}s`}
                className={`size-full truncate rounded px-1.5 text-left text-[11.5px] font-semibold text-soot-950 ${chosen === phase.id ? 'ring-2 ring-wax-100' : ''}`}
                style={{ background: phaseColour(i) }}
                onClick={() => {
                  setChosen(chosen === phase.id ? null : phase.id);
                  goTo(phase.from);
                }}
              >
                {phase.name} · {phase.hold}s
              </button>
              {i < timed.length - 1 ? (
                <span
                  className="absolute inset-y-0 -right-[7px] z-10 w-3 cursor-ew-resize touch-none"
                  data-tip="Drag: where one ends and the next begins"
                  data-phase-end={i}
                  onPointerDown={(event) => {
                    dragEnd(event, i);
                  }}
                />
              ) : null}
            </div>
          ))}
        </div>
      )}
      {own ? (
        <div className="mt-1.5 space-y-1">
          <div className="flex gap-1.5">
            <TypedField
              key={own.id}
              className="field !h-8 min-w-0 flex-1"
              label="Phase name"
              value={own.name}
              maxLength={80}
              onTake={(typed) => {
                const name = typed.trim();
                if (name && name !== own.name) change('phase name', { name });
              }}
            />
            <TypedField
              key={`${own.id}-length`}
              className="field !h-8 w-16 font-mono"
              label="Frames of the phase"
              inputMode="numeric"
              value={String(own.length)}
              onTake={(typed) => {
                const length = Math.round(Number(typed));
                if (length >= 1 && length <= 10_000 && length !== own.length) change('phase length', { length });
              }}
            />
            <Small
              title="Take this phase away"
              onClick={() => {
                set(
                  'take phase away',
                  phases.filter((p) => p.id !== own.id),
                );
                if (selection().phaseId === own.id) setSelection({ phaseId: null });
                setChosen(null);
              }}
            >
              <Trash2 size={14} />
            </Small>
          </div>
          <div className="flex items-center justify-between">
            <Words
              label="Usual hold"
              value={String(own.hold)}
              choices={[1, 2, 3, 4].map((n) => ({ value: String(n), label: `on ${n}s` }))}
              onChoose={(value) => {
                change('phase hold', { hold: Number(value) });
              }}
            />
            <Small
              title="This phase alone fills the wheel in Draw"
              onClick={() => {
                setSelection({ phaseId: opened === own.id ? null : own.id });
              }}
            >
              {opened === own.id ? <Minimize2 size={13} /> : <Maximize2 size={13} />}{' '}
              {opened === own.id ? 'Close in wheel' : 'Open in wheel'}
            </Small>
          </div>
        </div>
      ) : null}
    </section>
  );
}
