/** An element laid on the shelf: what it is called there, and by what it is found again. */
import { find, randomId } from '@tallow/core/document';
import { SHELF_KINDS, SHELF_LIMITS, shelfKinds, type ShelfKind } from '@tallow/core/shelf';
import { useState } from 'react';
import { request } from '../api/client.ts';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { say, useDocument } from '../shot/document.ts';
import { loadShelf, startKeeping, tagsFrom, useShelf } from './shelf.ts';
import { Select } from '../parts/select.tsx';

/** What kind an element most likely is, by what its layers are called. */
const KINDS_BY_WORD: Readonly<Record<string, ShelfKind>> = {
  fire: 'fire',
  flame: 'fire',
  smoke: 'smoke',
  steam: 'smoke',
  drops: 'liquid',
  liquid: 'liquid',
  splash: 'liquid',
  bolt: 'lightning',
  burst: 'explosion',
  spark: 'sparks',
  ember: 'sparks',
  ring: 'impact',
};
const likely = (names: readonly string[]): ShelfKind => {
  const said = names.join(' ').toLowerCase();
  return Object.entries(KINDS_BY_WORD).find(([word]) => said.includes(word))?.[1] ?? 'other';
};

const LABEL = 'mb-1 block text-[13px] text-wax-500';

function Fields({ elementId, onDone }: { elementId: string; onDone: () => void }) {
  const doc = useDocument((s) => s.doc)!;
  const saving = useDocument((s) => s.saving);
  const element = find(doc, 'element', elementId);
  const names = Object.values(doc.entities).flatMap((each) =>
    each.kind === 'layer' && each.elementId === elementId ? [each.name] : [],
  );
  const [name, setName] = useState(element?.name ?? '');
  const [kind, setKind] = useState(() => likely([element?.name ?? '', ...names]));
  const [tags, setTags] = useState('');
  const [note, setNote] = useState('');
  const [id] = useState(randomId);
  const whyNot =
    name.trim() === ''
      ? 'It needs a name.'
      : saving.state === 'saved'
        ? null
        : 'Wait until everything is saved: what the server has is kept.';
  const keep = (): void => {
    const told = { name: name.trim(), kind, tags: tagsFrom(tags).slice(0, SHELF_LIMITS.tags), note: note.trim() };
    request('POST', '/shelf', { id, shotId: doc.shotId, elementId, ...told })
      .then(async () => {
        say(`“${told.name}” stands on the shelf.`);
        onDone();
        await loadShelf();
      })
      .catch((error: unknown) => {
        say(error instanceof Error ? error.message : String(error));
      });
  };
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (!whyNot) keep();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
      }}
    >
      <label className="block">
        <span className={LABEL}>Name</span>
        <input
          className="field w-full"
          aria-label="Name on the shelf"
          maxLength={SHELF_LIMITS.name}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
      </label>
      <label className="block">
        <span className={LABEL}>Kind</span>
        <Select
          label="Kind of effect"
          className="field w-full"
          value={kind}
          options={shelfKinds.map((each) => ({ value: each, label: SHELF_KINDS[each] }))}
          onChoose={setKind}
        />
      </label>
      <label className="block">
        <span className={LABEL}>Tags, with commas between</span>
        <input
          className="field w-full"
          aria-label="Tags"
          value={tags}
          onChange={(event) => {
            setTags(event.target.value);
          }}
        />
      </label>
      <label className="block">
        <span className={LABEL}>Note</span>
        <textarea
          className="field h-20 w-full resize-none py-2"
          aria-label="Note"
          maxLength={SHELF_LIMITS.note}
          value={note}
          onChange={(event) => {
            setNote(event.target.value);
          }}
        />
      </label>
      <Button look="primary" className="w-full" whyNot={whyNot} onClick={keep}>
        Keep it
      </Button>
    </form>
  );
}

export function KeepDialog() {
  const keeping = useShelf((s) => s.keeping);
  const close = (): void => {
    startKeeping(null);
  };
  return (
    <Dialog
      title="Keep on the shelf"
      open={keeping !== null}
      onOpenChange={(open) => {
        if (!open) close();
      }}
    >
      {keeping ? <Fields key={keeping} elementId={keeping} onDone={close} /> : null}
    </Dialog>
  );
}
