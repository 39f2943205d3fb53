/** The shelf by itself: all effects running, found, told of anew, opened to be worked on, taken off. */
import { SHELF_KINDS, shelfKinds } from '@tallow/core/shelf';
import { ArrowLeft, Pause, Pencil, Play, StickyNote, Tag, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ShelfItem } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { ITEM } from '../parts/menu.tsx';
import { NameField } from '../parts/name-field.tsx';
import { Filters } from '../shelf/filters.tsx';
import { ShelfCard } from '../shelf/shelf-card.tsx';
import { foundOn, loadShelf, tagsFrom, takeOff, tellOf, useShelf } from '../shelf/shelf.ts';
import { NoticeBar } from '../shot/notice.tsx';
import { KeptSettings } from './kept-settings.tsx';
import { MoreAbout } from './more-about.tsx';

/** What of an effect is typed, as it is called. */
const TYPED = {
  name: 'Name on the shelf',
  tags: 'Tags, with commas between',
  note: 'Note',
} as const;

/** ms after which loops that are being made are looked for. */
const LOOK_MS = 4000;

function Item({ item, moves }: { item: ShelfItem; moves: boolean }) {
  const [typing, setTyping] = useState<keyof typeof TYPED | null>(null);
  const navigate = useNavigate();
  return (
    <div>
      <ShelfCard
        item={item}
        moves={moves}
        does="Open it, to look at and to work on"
        onChoose={() => void navigate(`/shots/${item.id}/draw`)}
      >
        <MoreAbout label={`More about ${item.name}`}>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              setTyping('name');
            }}
          >
            <Pencil size={15} /> Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              setTyping('tags');
            }}
          >
            <Tag size={15} /> Tags
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              setTyping('note');
            }}
          >
            <StickyNote size={15} /> Note
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-soot-700" />
          {shelfKinds.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className={`${ITEM} ${kind === item.kind ? 'text-flame' : ''}`}
              onSelect={() => void tellOf(item.id, { kind })}
            >
              {SHELF_KINDS[kind]}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-soot-700" />
          <DropdownMenu.Item className={ITEM} onSelect={() => void takeOff(item)}>
            <Trash2 size={15} /> Off the shelf
          </DropdownMenu.Item>
        </MoreAbout>
      </ShelfCard>
      {typing ? (
        <NameField
          label={TYPED[typing]}
          value={typing === 'tags' ? item.tags.join(', ') : item[typing]}
          onDone={(text) => {
            const before = typing;
            setTyping(null);
            if (before === 'name' && text && text !== item.name) void tellOf(item.id, { name: text });
            if (before === 'note' && text !== null) void tellOf(item.id, { note: text });
            if (before === 'tags' && text !== null) void tellOf(item.id, { tags: tagsFrom(text) });
          }}
        />
      ) : (
        <p className="truncate text-xs text-wax-500">{item.tags.join(', ')}</p>
      )}
    </div>
  );
}

export function ShelfPage() {
  const { items, trouble, asked } = useShelf();
  const [moves, setMoves] = useState(() => !matchMedia('(prefers-reduced-motion: reduce)').matches);
  useEffect(() => {
    void loadShelf();
  }, []);
  const awaits = trouble !== null || (items?.some(({ loop, revision }) => loop?.revision !== revision) ?? false);
  useEffect(() => {
    if (!awaits) return undefined;
    const timer = setInterval(() => void loadShelf(), LOOK_MS);
    return () => {
      clearInterval(timer);
    };
  }, [awaits]);
  const found = items ? foundOn(items, asked) : [];
  return (
    <div className="h-full overflow-y-auto">
      <header className="sticky top-0 z-10 flex h-16 items-center gap-3 border-b border-soot-700 bg-soot-950 px-8">
        <Link to="/" className="font-name text-[26px] text-flame" data-tip="All shots">
          Tallow
        </Link>
        <Link to="/" className="moves ml-6 flex h-9 items-center gap-2 text-[13px] text-wax-300 hover:text-wax-100">
          <ArrowLeft size={15} /> Shots
        </Link>
        <Button
          look="bare"
          aria-pressed={moves}
          onClick={() => {
            setMoves(!moves);
          }}
        >
          {moves ? <Pause size={15} /> : <Play size={15} />} {moves ? 'Pause the loops' : 'Play the loops'}
        </Button>
      </header>
      <main className="mx-auto flex max-w-[1480px] gap-8 p-8">
        <aside aria-label="What is looked for" className="w-[300px] shrink-0 space-y-4">
          <h1 className="font-name text-2xl">Shelf</h1>
          <Filters />
          <p className="text-[13px] text-wax-500" data-testid="shelf-count">
            {items ? `${found.length} of ${items.length} effects` : (trouble ?? 'Looking at the shelf …')}
          </p>
          {trouble && items ? (
            <p role="alert" className="text-[13px] text-warn">
              {trouble}. Trying again.
            </p>
          ) : null}
        </aside>
        <section aria-label="Effects" className="min-w-0 flex-1">
          {items && found.length === 0 ? (
            <p className="text-wax-500">
              {items.length === 0
                ? 'Nothing stands here yet. In a shot, keep an element: it is in the menu of its row.'
                : 'Nothing on the shelf is like that.'}
            </p>
          ) : null}
          <div className="grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-x-5 gap-y-6">
            {found.map((item) => (
              <Item key={item.id} item={item} moves={moves} />
            ))}
          </div>
          <KeptSettings />
        </section>
      </main>
      <NoticeBar />
    </div>
  );
}
