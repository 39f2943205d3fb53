/** The first page: productions with their shots. */
import { randomId } from '@tallow/core/document';
import { secondsText } from '@tallow/core/timing';
import { Copy, Ellipsis, Pencil, Plus, Trash2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useCallback, useEffect, useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { request } from '../api/client.ts';
import type { Production, ShotSummary } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { NameField } from '../parts/name-field.tsx';
import { NoticeBar } from '../parts/notice.tsx';
import { say } from '../state/document.ts';
import { NewShot } from './new-shot.tsx';

interface Shelf {
  readonly productions: readonly Production[];
  readonly shots: readonly ShotSummary[];
}

/** Productions and shots, with a way to change them and see the change. */
function useShelf() {
  const [shelf, setShelf] = useState<Shelf | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const reload = useCallback(async () => {
    try {
      const [productions, shots] = await Promise.all([
        request<Production[]>('GET', '/productions'),
        request<ShotSummary[]>('GET', '/shots'),
      ]);
      setShelf({ productions, shots });
      setTrouble(null);
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  }, []);
  useEffect(() => {
    void reload();
  }, [reload]);
  useEffect(() => {
    if (!trouble) return undefined;
    const timer = setTimeout(() => void reload(), 1500);
    return () => {
      clearTimeout(timer);
    };
  }, [trouble, reload]);
  const change = useCallback(
    async (work: Promise<unknown>) => {
      try {
        await work;
      } catch (error) {
        say(error instanceof Error ? error.message : String(error));
      }
      await reload();
    },
    [reload],
  );
  return { shelf, trouble, change };
}

type Change = (work: Promise<unknown>) => Promise<void>;

/** Deletes something and offers to bring it back. */
function removeWithUndo(change: Change, path: string, name: string): void {
  void change(request('DELETE', path)).then(() => {
    say(`“${name}” was deleted.`, { label: 'Undo', run: () => void change(request('POST', `${path}/restore`)) });
  });
}

const ITEM =
  'flex h-9 cursor-pointer items-center gap-2.5 rounded-md px-2.5 outline-none data-[highlighted]:bg-soot-700';

function Menu({ label, children }: { label: string; children: ReactNode }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={label}
        title="More"
        className="moves grid size-8 shrink-0 place-items-center rounded-lg text-wax-500 hover:bg-soot-800 hover:text-wax-100"
      >
        <Ellipsis size={17} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        {/* What an item opens takes the focus itself. */}
        <DropdownMenu.Content
          align="end"
          onCloseAutoFocus={(event) => {
            event.preventDefault();
          }}
          className="z-40 min-w-44 rounded-[10px] border border-soot-700 bg-soot-800 p-1.5 shadow-2xl"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function ShotCard({ shot, change }: { shot: ShotSummary; change: Change }) {
  const [naming, setNaming] = useState(false);
  return (
    <article data-testid="shot" data-name={shot.name} className="group">
      <Link
        to={`/shots/${shot.id}/draw`}
        className="block overflow-hidden rounded-[10px] bg-surround"
        aria-label={`Open ${shot.name}`}
      >
        <img
          src={`/api/shots/${shot.id}/picture.png?r=${shot.revision}`}
          alt=""
          className="moves aspect-video w-full object-contain group-hover:brightness-110"
        />
      </Link>
      <div className="mt-2 flex items-start gap-2">
        <div className="min-w-0 flex-1">
          {naming ? (
            <NameField
              label="Shot name"
              value={shot.name}
              onDone={(name) => {
                setNaming(false);
                if (name && name !== shot.name) void change(request('PATCH', `/shots/${shot.id}`, { name }));
              }}
            />
          ) : (
            <Link to={`/shots/${shot.id}/draw`} className="font-name block truncate text-[17px] hover:text-flame">
              {shot.name}
            </Link>
          )}
          <div className="font-mono text-xs text-wax-500">
            {shot.width}×{shot.height} · {shot.rate} fps · {shot.length} f · {secondsText(shot.length, shot.rate)}
          </div>
        </div>
        <Menu label={`More about ${shot.name}`}>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              setNaming(true);
            }}
          >
            <Pencil size={15} /> Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => void change(request('POST', `/shots/${shot.id}/duplicate`, { id: randomId() }))}
          >
            <Copy size={15} /> Duplicate
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              removeWithUndo(change, `/shots/${shot.id}`, shot.name);
            }}
          >
            <Trash2 size={15} /> Delete
          </DropdownMenu.Item>
        </Menu>
      </div>
    </article>
  );
}

function ProductionSection({
  production,
  shots,
  change,
  onNew,
}: {
  production: Production;
  shots: readonly ShotSummary[];
  change: Change;
  onNew: () => void;
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
        <Menu label={`More about ${production.name}`}>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              setNaming(true);
            }}
          >
            <Pencil size={15} /> Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => {
              removeWithUndo(change, `/productions/${production.id}`, production.name);
            }}
          >
            <Trash2 size={15} /> Delete
          </DropdownMenu.Item>
        </Menu>
      </div>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-x-6 gap-y-8">
        {shots.map((shot) => (
          <ShotCard key={shot.id} shot={shot} change={change} />
        ))}
        <button
          type="button"
          onClick={onNew}
          className="moves grid aspect-video place-items-center rounded-[10px] border border-dashed border-soot-700 text-wax-500 hover:border-flame hover:text-flame"
        >
          <span className="flex items-center gap-2">
            <Plus size={17} /> New shot
          </span>
        </button>
      </div>
    </section>
  );
}

export function ShotsPage() {
  const { shelf, trouble, change } = useShelf();
  const [newIn, setNewIn] = useState<string | null>(null);
  const navigate = useNavigate();
  const addProduction = (): void => {
    void change(
      request('POST', '/productions', { id: randomId(), name: `Production ${(shelf?.productions.length ?? 0) + 1}` }),
    );
  };
  return (
    <div className="h-full overflow-y-auto">
      <header className="sticky top-0 z-10 flex h-16 items-center border-b border-soot-700 bg-soot-950 px-8">
        <span className="font-name text-[26px] text-flame">Tallow</span>
        <Button className="ml-auto" onClick={addProduction}>
          <Plus size={16} /> New production
        </Button>
      </header>
      <main className="mx-auto max-w-[1480px] p-8">
        {trouble ? (
          <p role="alert" className="mb-6 text-warn">
            {trouble}. Trying again.
          </p>
        ) : null}
        {shelf?.productions.length === 0 ? (
          <div className="mx-auto mt-24 max-w-md space-y-5 text-center">
            <p className="font-name text-2xl">A production holds shots that share a look.</p>
            <Button look="primary" onClick={addProduction}>
              Make a production
            </Button>
          </div>
        ) : null}
        {shelf?.productions.map((production) => (
          <ProductionSection
            key={production.id}
            production={production}
            shots={shelf.shots.filter((shot) => shot.productionId === production.id)}
            change={change}
            onNew={() => {
              setNewIn(production.id);
            }}
          />
        ))}
      </main>
      {newIn && shelf ? (
        <NewShot
          productions={shelf.productions}
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
