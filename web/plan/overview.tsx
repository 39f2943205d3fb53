/** What is planned for the element, when nothing is selected. */
import { findAll, MOODS, shotOf, type Mood } from '@tallow/core/document';
import { setGuide, setPath, setPlan, startersOf } from '@tallow/core/edit';
import { starterOf } from '@tallow/core/starters';
import { Eye, EyeOff, Flame, Ruler, Spline, Triangle } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { setPlanning, selectPlanned, usePlan, type SelectedPlan } from './plan.ts';
import { Words } from '../parts/choice.tsx';
import { Check, Heading } from '../parts/panel.tsx';

interface Entry {
  readonly hand: NonNullable<SelectedPlan>;
  readonly icon: ReactNode;
  readonly name: string;
  readonly says: string;
  readonly seen: { visible: boolean; toggle: () => void } | null;
}

function entriesOf(now: Current): Entry[] {
  const { element, doc } = now;
  return [
    ...startersOf(doc, element.id).map((starter): Entry => {
      const kind = starterOf(starter.effect);
      return {
        hand: { kind: 'starter', id: starter.id },
        icon: <Flame size={15} />,
        name: kind.name,
        says: `${starter.length} frames${starter.hold ? `, on ${starter.hold}s` : ', by phases'}`,
        seen: null,
      };
    }),
    ...findAll(doc, 'path', element.paths).map((path): Entry => ({
      hand: { kind: 'path', id: path.id },
      icon: <Spline size={15} />,
      name: path.name,
      says: `${path.ticks} ticks on ${path.hold}s`,
      seen: {
        visible: path.visible,
        toggle: () => {
          edit(path.visible ? 'hide path' : 'show path', (d) => setPath(d, path.id, { visible: !path.visible }));
        },
      },
    })),
    ...element.bases.map((base): Entry => ({
      hand: { kind: 'base', id: base.id },
      icon: <Triangle size={14} />,
      name: `Base ${base.name}`,
      says: base.notes.map((n) => n.move).join(', '),
      seen: null,
    })),
    ...findAll(doc, 'guide', shotOf(doc).guides)
      .filter((guide) => !guide.elementId || guide.elementId === element.id)
      .map((guide): Entry => ({
        hand: { kind: 'guide', id: guide.id },
        icon: <Ruler size={15} />,
        name: guide.name,
        says: guide.span ? `frames ${guide.span.from + 1} to ${guide.span.from + guide.span.length}` : 'throughout',
        seen: {
          visible: guide.visible,
          toggle: () => {
            edit(guide.visible ? 'hide guide' : 'show guide', (d) =>
              setGuide(d, guide.id, { visible: !guide.visible }),
            );
          },
        },
      })),
  ];
}

export function Overview({ now }: { now: Current }) {
  const shown = usePlan((s) => s.shown);
  const entries = entriesOf(now);
  const { mood, id } = now.element;
  return (
    <>
      <Heading>Planned</Heading>
      {entries.length === 0 ? (
        <p className="pb-2 text-[13px] leading-5 text-wax-500">
          Nothing yet. Draw a path across the picture for what flies, set where the effect grows from, or lay a starter:
          its drawings are ordinary ones, yours to draw over.
        </p>
      ) : (
        <ul className="space-y-0.5 pb-1">
          {entries.map(({ hand, icon, name, says, seen }) => (
            <li key={hand.id} className="flex items-center gap-1">
              <button
                type="button"
                className="moves flex h-9 min-w-0 flex-1 items-center gap-2 rounded-lg px-2 text-left hover:bg-soot-800"
                onClick={() => {
                  selectPlanned(hand);
                }}
              >
                <span className="text-wax-500">{icon}</span>
                <span className="truncate">{name}</span>
                <span className="ml-auto shrink-0 text-xs text-wax-500">{says}</span>
              </button>
              {seen ? (
                <button
                  type="button"
                  aria-label={`${seen.visible ? 'Hide' : 'Show'} ${name}`}
                  data-tip={seen.visible ? 'Hide' : 'Show'}
                  className="moves grid size-8 place-items-center rounded-md text-wax-500 hover:bg-soot-800 hover:text-wax-100"
                  onClick={seen.toggle}
                >
                  {seen.visible ? <Eye size={15} /> : <EyeOff size={15} />}
                </button>
              ) : (
                <span className="size-8" />
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="flex h-9 items-center justify-between text-[13px] text-wax-300">
        Mood
        <Words<Mood | 'none'>
          label="Mood"
          value={mood ?? 'none'}
          choices={[{ value: 'none', label: 'none' }, ...MOODS.map((m) => ({ value: m, label: m }))]}
          onChoose={(value) => {
            edit('mood', (doc) => setPlan(doc, id, { mood: value === 'none' ? null : value }));
          }}
        />
      </div>
      <Check
        label="Guides, paths and marks are seen"
        checked={shown}
        onChange={(on) => {
          setPlanning({ shown: on });
        }}
      />
    </>
  );
}
