/** The versions of the shot: each with its picture, when it was, and how much has changed since. */
import { Columns2, GitBranch, Pause, Play, Trash2, Undo } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Version } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { sizeText } from '../parts/size-text.ts';
import { whenText } from '../parts/when-text.ts';
import { NameField } from '../parts/name-field.tsx';
import { useDocument } from '../shot/document.ts';
import { SideBySide, VersionLoop } from './loops.tsx';
import { PartMenu } from './part-menu.tsx';
import {
  branchFrom,
  goBackTo,
  letVersionGo,
  nameVersion,
  renameVersion,
  showVersions,
  useVersions,
  whyNotNow,
} from './versions.ts';

const changedText = (count: number): string =>
  count === 0
    ? 'no drawing has changed since'
    : count === 1
      ? 'one drawing has changed since'
      : `${count} drawings have changed since`;

interface CardProps {
  version: Version;
  whyNot: string | null;
  isCompared: boolean;
  onCompare: (id: string) => void;
}

function Card({ version, whyNot, isCompared, onCompare }: CardProps) {
  const [naming, setNaming] = useState(false);
  const [plays, setPlays] = useState(false);
  const navigate = useNavigate();
  const { id, name, createdAt, changed, made } = version;
  return (
    <article data-testid="version" data-name={name} className="flex gap-3 rounded-[10px] border border-soot-700 p-3">
      <div className="relative w-44 shrink-0 self-start">
        <VersionLoop id={id} plays={plays} />
        <button
          type="button"
          aria-label={plays ? `Stop “${name}”` : `Play “${name}”`}
          className="moves absolute bottom-1.5 right-1.5 grid size-8 place-items-center rounded-lg bg-soot-950/80 text-wax-300 hover:text-wax-100"
          onClick={() => {
            setPlays(!plays);
          }}
        >
          {plays ? <Pause size={15} /> : <Play size={15} />}
        </button>
      </div>
      <div className="min-w-0 flex-1">
        {naming ? (
          <NameField
            label="Name of the version"
            value={name}
            onDone={(typed) => {
              setNaming(false);
              if (typed && typed !== name) void renameVersion(id, typed);
            }}
          />
        ) : (
          <button
            type="button"
            className="font-name block max-w-full truncate text-left text-[17px] hover:text-flame"
            data-tip="Rename"
            onClick={() => {
              setNaming(true);
            }}
          >
            {name}
          </button>
        )}
        <p className="text-[13px] text-wax-500">
          {whenText(createdAt)}
          {made === 'hand' ? '' : ', by itself'} · {changedText(changed)}
        </p>
        <div className="mt-2 flex flex-wrap gap-1.5">
          <Button
            whyNot={whyNot}
            title="The shot becomes as it was then; what came after stays among the versions"
            onClick={() => void goBackTo(version)}
          >
            <Undo size={15} /> Go back
          </Button>
          <Button
            title="A new shot that goes on from it"
            onClick={() => {
              void branchFrom(version).then((shot) => {
                if (shot) void navigate(`/shots/${shot}/draw`);
              });
            }}
          >
            <GitBranch size={15} /> New shot
          </Button>
          <PartMenu version={version} />
          <Button
            aria-pressed={isCompared}
            title="Played beside another version, in step"
            onClick={() => {
              onCompare(id);
            }}
          >
            <Columns2 size={15} /> Compare
          </Button>
          <Button look="bare" title="Lets the name go; nothing drawn is lost" onClick={() => void letVersionGo(id)}>
            <Trash2 size={15} /> <span className="sr-only">{`Let “${name}” go`}</span>
          </Button>
        </div>
      </div>
    </article>
  );
}

function Versions() {
  const { list, trouble, room } = useVersions();
  const saving = useDocument((s) => s.saving.state);
  const [name, setName] = useState('');
  const [compared, setCompared] = useState<readonly string[]>([]);
  const pair = compared.flatMap((id) => list?.find((each) => each.id === id) ?? []);
  const whyNot = saving === 'saved' ? null : whyNotNow();
  const keep = (): void => {
    if (whyNot || name.trim() === '') return;
    void nameVersion(name.trim());
    setName('');
  };
  return (
    <div
      onKeyDown={(event) => {
        event.stopPropagation();
      }}
    >
      <form
        className="mb-5 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <input
          className="field min-w-0 flex-1"
          aria-label="Name of a new version"
          placeholder="Name the shot as it is now: plan, spacing, trail, final"
          maxLength={200}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        <Button look="primary" whyNot={whyNot ?? (name.trim() === '' ? 'It needs a name.' : null)} onClick={keep}>
          Keep as a version
        </Button>
      </form>
      {trouble ? (
        <p role="alert" className="mb-3 text-warn">
          {trouble}
        </p>
      ) : null}
      {pair.length === 2 ? (
        <SideBySide
          versions={pair}
          onClose={() => {
            setCompared([]);
          }}
        />
      ) : pair.length === 1 ? (
        <p className="mb-3 text-[13px] text-wax-300">Choose the version that “{pair[0]!.name}” is played beside.</p>
      ) : null}
      {list?.length === 0 ? (
        <p className="text-wax-500">
          None yet. One is made by itself before the shot is taken away, and before going back to another.
        </p>
      ) : null}
      <div className="grid grid-cols-2 gap-3 max-[1000px]:grid-cols-1">
        {list?.map((version) => (
          <Card
            key={version.id}
            version={version}
            whyNot={whyNot}
            isCompared={compared.includes(version.id)}
            onCompare={(id) => {
              // The first that was chosen makes way for a third.
              setCompared(compared.includes(id) ? compared.filter((each) => each !== id) : [...compared, id].slice(-2));
            }}
          />
        ))}
      </div>
      {room ? (
        <p className="mt-4 text-[13px] text-wax-500" data-testid="room">
          {sizeText(room.now)} as it is now, {sizeText(room.before)} kept of what came before.
        </p>
      ) : null}
    </div>
  );
}

export function VersionsDialog() {
  const shown = useVersions((s) => s.shown);
  return (
    <Dialog title="Versions" open={shown} onOpenChange={showVersions} wide>
      <Versions />
    </Dialog>
  );
}
