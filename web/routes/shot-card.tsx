/** One shot: its loop, its name and format, and what can be done with it. */
import { randomId } from '@tallow/core/document';
import { secondsText } from '@tallow/core/timing';
import { Copy, Play } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { Link } from 'react-router';
import { request } from '../api/client.ts';
import type { ShotSummary } from '../api/types.ts';
import { ITEM } from '../parts/menu.tsx';
import { NameField } from '../parts/name-field.tsx';
import type { Archived } from './archiving.ts';
import { MoreAbout } from './more-about.tsx';
import { removeWithUndo, type ShotsChange } from './all-shots.ts';
import { ArchiveAndDelete, RenameItem } from './card-items.tsx';

/** The loop where it may play, else the still picture; what flashes plays only when asked for. */
function Moving({ shot, moves }: { shot: ShotSummary; moves: boolean }) {
  const [asked, setAsked] = useState(false);
  const { loop } = shot;
  const plays = loop !== null && (asked || (moves && !loop.flashes));
  const source = plays
    ? `/api/shots/${shot.id}/loop.webp?r=${loop.revision}`
    : `/api/shots/${shot.id}/picture.png?r=${shot.revision}`;
  return (
    <div className="relative">
      <Link
        to={`/shots/${shot.id}/draw`}
        className="block overflow-hidden rounded-[10px] bg-surround"
        aria-label={`Open ${shot.name}`}
      >
        <img
          src={source}
          alt=""
          data-plays={plays}
          className="moves aspect-video w-full object-contain group-hover:brightness-110"
        />
      </Link>
      {loop && !plays ? (
        <button
          type="button"
          aria-label={`Play ${shot.name}`}
          data-tip={
            loop.flashes ? 'It flashes more than three times a second, so it plays only when asked' : 'Play the loop'
          }
          className="moves absolute bottom-2 right-2 flex h-8 items-center gap-2 rounded-lg bg-soot-950/80 px-2.5 text-[13px] text-wax-300 hover:text-wax-100"
          onClick={() => {
            setAsked(true);
          }}
        >
          {loop.flashes ? 'Flashes' : null} <Play size={14} />
        </button>
      ) : null}
    </div>
  );
}

interface ShotCardProps {
  shot: ShotSummary;
  change: ShotsChange;
  onArchive: (what: Archived, name: string) => void;
  moves: boolean;
}

export function ShotCard({ shot, change, onArchive, moves }: ShotCardProps) {
  const [naming, setNaming] = useState(false);
  return (
    <article data-testid="shot" data-name={shot.name} className="group">
      <Moving key={String(moves)} shot={shot} moves={moves} />
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
        <MoreAbout label={`More about ${shot.name}`}>
          <RenameItem
            onRename={() => {
              setNaming(true);
            }}
          />
          <DropdownMenu.Item
            className={ITEM}
            onSelect={() => void change(request('POST', `/shots/${shot.id}/duplicate`, { id: randomId() }))}
          >
            <Copy size={15} /> Duplicate
          </DropdownMenu.Item>
          <ArchiveAndDelete
            onArchive={() => {
              onArchive({ scope: 'shot', of: shot.id }, shot.name);
            }}
            onDelete={() => {
              removeWithUndo(change, `/shots/${shot.id}`, shot.name);
            }}
          />
        </MoreAbout>
      </div>
    </article>
  );
}
