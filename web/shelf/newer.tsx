/** Effects of this shot that are newer on the shelf: what would change, and the newer one or one's own. */
import { find, randomId, type Id } from '@tallow/core/document';
import { changeWords, fromShelf, keepOlder, takeNewer, wouldChange, type ShelfClip } from '@tallow/core/shelf';
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { ShelfItem } from '../api/types.ts';
import { Small } from '../parts/panel.tsx';
import { setSelection } from '../selection/selection.ts';
import { useOfCurrent } from '../selection/current.ts';
import { edit, say, useDocument } from '../shot/document.ts';
import { effectClip } from './put.ts';

/** What would change by an effect, once it has been looked at. */
interface Seen {
  readonly clip: ShelfClip;
  readonly words: readonly string[];
}

function Offer({ elementId, item }: { elementId: Id; item: ShelfItem }) {
  const [seen, setSeen] = useState<Seen | null>(null);
  const name = useOfCurrent(({ doc }) => find(doc, 'element', elementId)?.name) ?? item.name;
  const missing = useDocument((s) => s.missing.size);
  const told = (work: (clip: ShelfClip) => void): void => {
    effectClip(item).then(work, (error: unknown) => {
      say(error instanceof Error ? error.message : String(error));
    });
  };
  const look = (clip: ShelfClip): void => {
    const { doc } = useDocument.getState();
    const changes = doc && wouldChange(doc, elementId, clip);
    if (changes) setSeen({ clip, words: changeWords(changes) });
  };
  const take = (clip: ShelfClip): void => {
    let next = elementId;
    edit(`newer ${name}`, (doc) => {
      const taken = takeNewer(doc, elementId, clip, randomId);
      next = taken.elementId;
      return taken.doc;
    });
    // Pressed twice, the first press has taken it.
    if (next === elementId) return;
    setSelection({ elementId: next, layerId: null, selectedRuns: null, place: null });
    say(`“${name}” is as the shelf has it now. What was drawn in it here is gone; undo brings it back.`);
  };
  return (
    <li className="rounded-lg bg-soot-800 p-2 text-[13px]" data-testid="newer">
      <p className="text-wax-100">“{name}” is newer on the shelf.</p>
      {seen ? (
        <p className="text-wax-300" data-testid="newer-changes">
          {seen.words.length > 0 ? `${seen.words.join('; ')}.` : 'Its drawings are the same; settings may be others.'}
        </p>
      ) : null}
      <div className="mt-1.5 flex flex-wrap gap-1.5 [&_button]:bg-soot-900">
        {seen ? null : (
          <Small
            whyNot={missing > 0 ? 'Its drawings are still coming.' : null}
            onClick={() => {
              told(look);
            }}
          >
            What would change
          </Small>
        )}
        <Small
          onClick={() => {
            if (seen) take(seen.clip);
            else told(take);
          }}
        >
          Take the newer one
        </Small>
        <Small
          title="It is not offered again until it changes once more"
          onClick={() => {
            edit(`keep ${name} as it is`, (doc) => keepOlder(doc, elementId, item.revision));
          }}
        >
          Keep this one
        </Small>
      </div>
    </li>
  );
}

export function NewerOnShelf({ items }: { items: readonly ShelfItem[] }) {
  const older = useOfCurrent(
    useShallow(({ doc }) =>
      fromShelf(doc).flatMap(({ elementId, shelfId, revision }) => {
        const item = items.find(({ id }) => id === shelfId);
        return item && item.revision > revision ? [`${elementId} ${shelfId}`] : [];
      }),
    ),
  );
  if (!older || older.length === 0) return null;
  return (
    <ul className="space-y-1.5 pt-1.5" aria-label="Newer on the shelf">
      {older.map((each) => {
        const [elementId, shelfId] = each.split(' ');
        const item = items.find(({ id }) => id === shelfId)!;
        return <Offer key={`${each} ${item.revision}`} elementId={elementId!} item={item} />;
      })}
    </ul>
  );
}
