/** The settings of a starter's kind, previewed while they move, laid when they are let go. */
import type { Starter } from '@tallow/core/document';
import { settingsOf, type Control } from '@tallow/core/controls';
import { starterOf } from '@tallow/core/starters';
import { useState } from 'react';
import { ControlRow } from '../parts/control-row.tsx';
import { Small } from '../parts/panel.tsx';
import type { Current } from '../selection/current.ts';
import { layNow, preview } from './laying.ts';
import { takePlanTool, usePlan } from './plan.ts';

function Setting({ starter, control }: { starter: Starter; control: Control }) {
  const { key, label, default: preset } = control;
  const withValue = (next: number): Starter => ({ ...starter, settings: { ...starter.settings, [key]: next } });
  return (
    <ControlRow
      control={control}
      value={starter.settings[key] ?? preset}
      onMove={(next) => {
        preview(withValue(next));
      }}
      onDone={(next) => {
        void layNow(withValue(next), label.toLowerCase());
      }}
    />
  );
}

/** The settings of its kind, the rarer ones once they are asked for. */
export function StarterSettings({ now, laid, starter }: { now: Current; laid: Starter; starter: Starter }) {
  const [more, setMore] = useState(false);
  const kind = starterOf(starter.effect);
  const { mood } = now.element;
  const fitting = mood ? kind.moods?.[mood] : undefined;
  return (
    <>
      {kind.controls
        .filter((control) => more || !control.more)
        .map((control) => (
          <Setting key={control.key} starter={starter} control={control} />
        ))}
      <div className="flex flex-wrap gap-1.5 py-1">
        {kind.controls.some((control) => control.more) ? (
          <Small
            onClick={() => {
              setMore(!more);
            }}
          >
            {more ? 'Fewer settings' : 'More settings'}
          </Small>
        ) : null}
        {kind.follows === 'line' ? <BaseButtons now={now} laid={laid} hasLine={starter.line !== null} /> : null}
        {fitting ? (
          <Small
            title="Takes the element’s mood as its setting"
            onClick={() => {
              void layNow(
                { ...laid, settings: settingsOf(kind, { ...laid.settings, ...fitting }) },
                `${mood!} ${kind.name.toLowerCase()}`,
              );
            }}
          >
            Make it {mood}
          </Small>
        ) : null}
      </div>
    </>
  );
}

/** The line it stands on: drawn, through the bases, or straight. */
function BaseButtons({ now, laid, hasLine }: { now: Current; laid: Starter; hasLine: boolean }) {
  const isDrawn = usePlan((s) => s.tool === 'foot');
  return (
    <>
      <Small
        title="Draw the line it stands on"
        onClick={() => {
          takePlanTool('foot');
        }}
      >
        {isDrawn ? 'Draw it in the picture …' : 'Draw its base'}
      </Small>
      {now.element.bases.length > 1 ? (
        <Small
          title="Its foot runs through the bases, from left to right"
          onClick={() => {
            const bases = [...now.element.bases].sort((a, b) => a.x - b.x);
            const line = Float32Array.from(bases.flatMap((b) => [b.x - laid.x, b.y - laid.y]));
            void layNow({ ...laid, line }, 'stand on the bases');
          }}
        >
          Stand on the bases
        </Small>
      ) : null}
      {hasLine ? (
        <Small
          onClick={() => {
            void layNow({ ...laid, line: null }, 'straight base');
          }}
        >
          Straight base
        </Small>
      ) : null}
    </>
  );
}
