/** The first page: productions with their shots. */
import { randomId } from '@tallow/core/document';
import { Archive, ArchiveRestore, HardDrive, Library, Pause, Play, Plus, Search } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { request } from '../api/client.ts';
import type { Production, ShotSummary } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { ITEM } from '../parts/menu.tsx';
import { NameField } from '../parts/name-field.tsx';
import { NoticeBar } from '../shot/notice.tsx';
import { isArchive, useArchiving, type Archived } from './archiving.ts';
import { ComingBar } from '../parts/coming-bar.tsx';
import { useDroppedFootage } from './dropped-footage.ts';
import { MoreAbout } from './more-about.tsx';
import { NewShot } from './new-shot.tsx';
import { removeWithUndo, useAllShots, type ShotsChange } from './all-shots.ts';
import { RoomDialog } from './room-dialog.tsx';
import { ShotCard } from './shot-card.tsx';
import { Select } from '../parts/select.tsx';
import { ArchiveAndDelete, RenameItem } from './card-items.tsx';

const ORDERS = {
  made: { label: 'As made', compare: () => 0 },
  changed: {
    label: 'Last changed',
    compare: (a: ShotSummary, b: ShotSummary) => b.updatedAt.localeCompare(a.updatedAt),
  },
  name: { label: 'By name', compare: (a: ShotSummary, b: ShotSummary) => a.name.localeCompare(b.name) },
  length: {
    label: 'Longest first',
    compare: (a: ShotSummary, b: ShotSummary) => b.length / b.rate - a.length / a.rate,
  },
} as const;
type Order = keyof typeof ORDERS;

function ProductionSection({
  production,
  shots,
  change,
  onNew,
  onArchive,
  moves,
}: {
  production: Production;
  shots: readonly ShotSummary[];
  change: ShotsChange;
  /** Makes a new shot here; null while only found ones are shown. */
  onNew: (() => void) | null;
  onArchive: (what: Archived, name: string) => void;
  moves: boolean;
}) {
  const [naming, setNaming] = useState(false);
  return (
    <section aria-label={production.name} data-testid="production" className="mb-12">
      <div className="mb-4 flex items-center gap-2">
        {naming ? (
          <div className="flex w-72">
            <NameField
              label="Production name"
              value={production.name}
              onDone={(name) => {
                setNaming(false);
                if (name && name !== production.name)
                  void change(request('PATCH', `/productions/${production.id}`, { name }));
              }}
            />
          </div>
        ) : (
          <h2 className="font-name truncate text-2xl">{production.name}</h2>
        )}
        <MoreAbout label={`More about ${production.name}`}>
          <RenameItem
            onRename={() => {
              setNaming(true);
            }}
          />
          <ArchiveAndDelete
            onArchive={() => {
              onArchive({ scope: 'production', of: production.id }, production.name);
            }}
            onDelete={() => {
              removeWithUndo(change, `/productions/${production.id}`, production.name);
            }}
          />
        </MoreAbout>
      </div>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-x-6 gap-y-8">
        {onNew ? (
          <button
            type="button"
            onClick={onNew}
            className="moves grid aspect-video place-items-center rounded-[10px] border border-dashed border-soot-700 text-wax-500 hover:border-flame hover:text-flame"
          >
            <span className="flex items-center gap-2">
              <Plus size={17} /> New shot
            </span>
          </button>
        ) : null}
        {shots.map((shot) => (
          <ShotCard key={shot.id} shot={shot} change={change} onArchive={onArchive} moves={moves} />
        ))}
      </div>
    </section>
  );
}

export function ShotsPage() {
  const { all, trouble, change } = useAllShots();
  const [newIn, setNewIn] = useState<string | null>(null);
  const [wanted, setWanted] = useState('');
  const [order, setOrder] = useState<Order>('made');
  const [measuring, setMeasuring] = useState(false);
  const [moves, setMoves] = useState(() => !matchMedia('(prefers-reduced-motion: reduce)').matches);
  const navigate = useNavigate();
  const addProduction = (): void => {
    void change(
      request('POST', '/productions', { id: randomId(), name: `Production ${(all?.productions.length ?? 0) + 1}` }),
    );
  };
  const sought = wanted.trim().toLowerCase();
  const found = (all?.shots ?? [])
    .filter((shot) => shot.name.toLowerCase().includes(sought))
    .toSorted(ORDERS[order].compare);
  const first = all?.productions[0];
  const dropped = useDroppedFootage(first?.id);
  const archives = useArchiving(() => void change(Promise.resolve()));
  const opened = useRef<HTMLInputElement>(null);
  const onArchive = (what: Archived, name: string): void => void archives.write(what, name);
  const productions = all?.productions.filter(
    ({ id }) => sought === '' || found.some((shot) => shot.productionId === id),
  );
  return (
    <div
      className="h-full overflow-y-auto"
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes('Files')) event.preventDefault();
      }}
      onDrop={(event) => {
        const [file] = event.dataTransfer.files;
        if (!file) return;
        event.preventDefault();
        if (isArchive(file)) void archives.read(file);
        else void dropped.take(file);
      }}
    >
      {dropped.coming ? <ComingBar coming={dropped.coming} onStop={dropped.stop} /> : null}
      <RoomDialog open={measuring} onOpenChange={setMeasuring} />
      {archives.coming ? <ComingBar coming={archives.coming} onStop={archives.stop} /> : null}
      <header className="sticky top-0 z-10 flex h-16 items-center gap-3 border-b border-soot-700 bg-soot-950 px-8">
        <span className="font-name text-[26px] text-flame">Tallow</span>
        <label className="relative ml-8 block w-72">
          <Search size={15} className="pointer-events-none absolute left-3 top-2.5 text-wax-500" />
          <input
            className="field w-full !pl-9"
            placeholder="Find a shot"
            aria-label="Find a shot"
            value={wanted}
            onChange={(event) => {
              setWanted(event.target.value);
            }}
          />
        </label>
        <Select
          label="Order of shots"
          className="field"
          value={order}
          options={(Object.keys(ORDERS) as Order[]).map((each) => ({ value: each, label: ORDERS[each].label }))}
          onChoose={setOrder}
        />
        <Button
          look="bare"
          aria-pressed={moves}
          title={moves ? 'The pictures stand still' : 'The pictures move'}
          onClick={() => {
            setMoves(!moves);
          }}
        >
          {moves ? <Pause size={15} /> : <Play size={15} />} {moves ? 'Pause the loops' : 'Play the loops'}
        </Button>
        <Link
          to="/shelf"
          className="moves flex h-9 items-center gap-2 rounded-lg px-3 text-[13px] text-wax-300 hover:bg-soot-800 hover:text-wax-100"
        >
          <Library size={15} /> Shelf
        </Link>
        {first ? (
          <Button
            look="primary"
            className="ml-auto"
            title={`In ${first.name}`}
            onClick={() => {
              setNewIn(first.id);
            }}
          >
            <Plus size={16} /> New shot
          </Button>
        ) : null}
        <Button className={first ? '' : 'ml-auto'} onClick={addProduction}>
          <Plus size={16} /> New production
        </Button>
        <MoreAbout label="Archives and room">
          <DropdownMenu.Item className={ITEM} onSelect={() => opened.current?.click()}>
            <ArchiveRestore size={15} /> Open an archive…
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            disabled={!all || all.shots.length === 0}
            onSelect={() => {
              onArchive(null, 'everything');
            }}
          >
            <Archive size={15} /> Archive everything
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              setMeasuring(true);
            }}
          >
            <HardDrive size={15} /> Room taken…
          </DropdownMenu.Item>
        </MoreAbout>
        <input
          ref={opened}
          type="file"
          accept=".zip"
          className="sr-only"
          tabIndex={-1}
          aria-label="Archive to open"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void archives.read(file);
          }}
        />
      </header>
      <main className="mx-auto max-w-[1480px] p-8">
        {trouble ? (
          <p role="alert" className="mb-6 text-warn">
            {trouble}. Trying again.
          </p>
        ) : null}
        {all?.productions.length === 0 ? (
          <div className="mx-auto mt-24 max-w-md space-y-5 text-center">
            <p className="font-name text-2xl">A production holds shots that share a look.</p>
            <Button look="primary" onClick={addProduction}>
              Make a production
            </Button>
          </div>
        ) : null}
        {sought !== '' && found.length === 0 ? (
          <p className="text-wax-500">No shot is named like “{wanted.trim()}”.</p>
        ) : null}
        {productions?.map((production) => (
          <ProductionSection
            key={production.id}
            production={production}
            shots={found.filter((shot) => shot.productionId === production.id)}
            change={change}
            moves={moves}
            onArchive={onArchive}
            onNew={
              sought === ''
                ? () => {
                    setNewIn(production.id);
                  }
                : null
            }
          />
        ))}
      </main>
      {newIn && all ? (
        <NewShot
          productions={all.productions}
          productionId={newIn}
          onClose={() => {
            setNewIn(null);
          }}
          onMade={(shot) => void navigate(`/shots/${shot.id}/draw`)}
        />
      ) : null}
      <NoticeBar />
    </div>
  );
}
