/** What can be done with the selected path, in one row, the rarer things in its menu. */
import { findAll, randomId, type Path } from '@tallow/core/document';
import { cutPath, deletePath, joinPaths } from '@tallow/core/edit';
import { dropNode, nodePoints, simplified } from '@tallow/core/plan';
import { Lock, Plus, Trash2, Unlock } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { ITEM, Menu } from '../parts/menu.tsx';
import { Small } from '../parts/panel.tsx';
import type { Current } from '../selection/current.ts';
import { edit, say } from '../shot/document.ts';
import { changePath } from './path-edits.ts';
import { selectPlanned, setPlanning, usePlan } from './plan.ts';

const NEW_SLOW_PLACE = { at: 0.5, width: 0.22, amount: 0.7 } as const;

function takePointAway(path: Path, node: number | null): void {
  if (node === null) say('Take one of its points first.');
  else changePath(path, 'take point away', { nodes: dropNode(path.nodes, node) });
  setPlanning({ node: null });
}

function takeApart(path: Path, node: number | null): void {
  const last = nodePoints(path.nodes).length - 1;
  if (node === null || (!path.closed && (node === 0 || node === last)))
    say('Take one of its inner points first: it comes apart there.');
  else edit('take path apart', (doc) => cutPath(doc, path.id, node, randomId));
  setPlanning({ node: null });
}

function PathMenu({ now, path }: { now: Current; path: Path }) {
  const node = usePlan((s) => s.node);
  const others = findAll(now.doc, 'path', now.element.paths).filter((p) => p.id !== path.id && !p.closed);
  return (
    <Menu
      label="More for this path"
      className="flex h-8 items-center rounded-lg bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:bg-soot-700"
      trigger="More"
    >
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          changePath(path, 'simplify path', simplified(path, 24));
        }}
      >
        Simplify: fewer points, ticks keep their frames
      </DropdownMenu.Item>
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          takePointAway(path, node);
        }}
      >
        Take the chosen point away
      </DropdownMenu.Item>
      <DropdownMenu.Item
        className={ITEM}
        onSelect={() => {
          takeApart(path, node);
        }}
      >
        Take apart at the chosen point
      </DropdownMenu.Item>
      {path.closed
        ? null
        : others.map((other) => (
            <DropdownMenu.Item
              key={other.id}
              className={ITEM}
              onSelect={() => {
                edit('join paths', (doc) => joinPaths(doc, path.id, other.id));
              }}
            >
              Join with {other.name} at the nearest ends
            </DropdownMenu.Item>
          ))}
    </Menu>
  );
}

export function PathButtons({ now, path }: { now: Current; path: Path }) {
  return (
    <div className="flex flex-wrap gap-1.5 py-1">
      <Small
        title="Slows what follows the path in one place"
        onClick={() => {
          changePath(path, 'slow place', { slows: [...path.slows, { id: randomId(), ...NEW_SLOW_PLACE }] });
        }}
      >
        <Plus size={14} /> Slow place
      </Small>
      <Small
        whyNot={path.slows.length === 0 ? 'There is no slow place.' : null}
        onClick={() => {
          changePath(path, 'take slow place away', { slows: path.slows.slice(0, -1) });
        }}
      >
        Take it away
      </Small>
      <Small
        title="Ticks put by hand follow the ease again"
        whyNot={Object.keys(path.placed).length === 0 ? 'No tick has been put by hand.' : null}
        onClick={() => {
          changePath(path, 'free ticks', { placed: {} });
        }}
      >
        Free ticks
      </Small>
      <PathMenu now={now} path={path} />
      <span className="flex-1" />
      <Small
        title={path.locked ? 'Unlock' : 'Lock'}
        onClick={() => {
          changePath(path, path.locked ? 'unlock path' : 'lock path', { locked: !path.locked });
        }}
      >
        {path.locked ? <Lock size={14} /> : <Unlock size={14} />}
      </Small>
      <Small
        title="Delete this path; what was stamped stays"
        onClick={() => {
          edit('delete path', (doc) => deletePath(doc, path.id));
          selectPlanned(null);
        }}
      >
        <Trash2 size={14} />
      </Small>
    </div>
  );
}
