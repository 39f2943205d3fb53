/** The shelf beside the picture: press an effect and it stands in the shot; or drop it where its anchor shall stand. */
import { useEffect } from 'react';
import { Link } from 'react-router';
import { Panel, Small } from '../parts/panel.tsx';
import { showPanel } from '../screen/panels.ts';
import { selection } from '../selection/selection.ts';
import { current } from '../selection/current.ts';
import { Filters } from './filters.tsx';
import { NewerOnShelf } from './newer.tsx';
import { putIn, shotPlace } from './put.ts';
import { ShelfCard } from './shelf-card.tsx';
import { foundOn, loadShelf, startKeeping, useShelf } from './shelf.ts';

const moves = (): boolean => !matchMedia('(prefers-reduced-motion: reduce)').matches;

export function ShelfPanel() {
  const { items, trouble, asked } = useShelf();
  useEffect(() => {
    void loadShelf();
  }, []);
  const found = items ? foundOn(items, asked) : [];
  return (
    <Panel
      label="Shelf"
      testId="shelf-panel"
      heading="Shelf"
      onBack={() => {
        showPanel(null);
      }}
    >
      <Filters />
      {items ? <NewerOnShelf items={items} /> : null}
      <div className="flex items-center justify-between py-1.5 text-[13px] text-wax-500">
        <span data-testid="shelf-count">
          {items ? `${found.length} of ${items.length}` : (trouble ?? 'Looking at the shelf …')}
        </span>
        <span className="flex gap-1.5">
          <Small
            title="The element one stands in, with all its layers, drawings and looks"
            onClick={() => {
              startKeeping(selection().elementId ?? current()?.element.id ?? null);
            }}
          >
            Keep this element
          </Small>
          <Link
            to="/shelf"
            className="moves flex h-8 items-center rounded-md bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:bg-soot-700 hover:text-wax-100"
          >
            All of it
          </Link>
        </span>
      </div>
      {items && found.length === 0 ? (
        <p className="py-2 text-[13px] text-wax-500">
          {items.length === 0
            ? 'Nothing stands here yet. Keep an element, and it can be put into any shot.'
            : 'Nothing on the shelf is like that.'}
        </p>
      ) : null}
      <div className="grid grid-cols-2 gap-x-3 gap-y-3 pb-4">
        {found.map((item) => (
          <ShelfCard
            key={item.id}
            item={item}
            moves={moves()}
            does="Put it into the shot"
            onChoose={() => void putIn(item, null)}
            onDrop={(place) => {
              const at = shotPlace(place);
              if (at) void putIn(item, at);
            }}
          />
        ))}
      </div>
    </Panel>
  );
}
