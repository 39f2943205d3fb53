/** Loops of versions: one by itself on its card, or two beside each other, begun at the same moment. */
import { useEffect, useState } from 'react';
import type { Id } from '@tallow/core/document';
import { Button } from '../parts/button.tsx';

/** ms between two looks for a loop that is being made, and after which it is given up. */
const [LOOK_MS, LONGEST_MS] = [700, 120_000] as const;

/** A loop as an address of this page, once it is made. @throws where it does not come, or is no longer wanted. */
async function loopOf(id: Id, signal: AbortSignal): Promise<string> {
  for (const until = Date.now() + LONGEST_MS; Date.now() < until;) {
    const answer = await fetch(`/api/versions/${id}/loop.webp`, { signal });
    if (answer.ok) return URL.createObjectURL(await answer.blob());
    await new Promise((done) => setTimeout(done, LOOK_MS));
    signal.throwIfAborted();
  }
  throw new Error('The loop did not come.');
}

type Loops = readonly string[] | null | 'none';
const isMade = (loops: Loops): loops is readonly string[] => loops !== null && loops !== 'none';

/** Loops of some versions, all of them or none: so they begin together. */
function useLoops(ids: readonly Id[]): Loops {
  const [loops, setLoops] = useState<Loops>(null);
  const key = ids.join();
  useEffect(() => {
    const abort = new AbortController();
    let made: readonly string[] = [];
    setLoops(null);
    Promise.all(key.split(',').map((id) => loopOf(id, abort.signal)))
      .then((all) => {
        made = all;
        if (!abort.signal.aborted) setLoops(all);
      })
      .catch(() => {
        if (!abort.signal.aborted) setLoops('none');
      });
    return () => {
      abort.abort();
      for (const each of made) URL.revokeObjectURL(each);
    };
  }, [key]);
  return loops;
}

const PICTURE = 'aspect-video w-full rounded-lg bg-surround object-contain';

/** Two versions beside each other, in step. */
export function SideBySide({
  versions,
  onClose,
}: {
  versions: readonly { readonly id: Id; readonly name: string }[];
  onClose: () => void;
}) {
  const loops = useLoops(versions.map(({ id }) => id));
  return (
    <section aria-label="Side by side" data-testid="side-by-side" className="mb-5">
      <div className="grid grid-cols-2 gap-3">
        {versions.map(({ id, name }, i) => (
          <figure key={id}>
            <img
              src={isMade(loops) ? loops[i] : `/api/versions/${id}/picture.png`}
              data-plays={isMade(loops)}
              alt={name}
              className={PICTURE}
            />
            <figcaption className="mt-1 truncate text-[13px] text-wax-300">{name}</figcaption>
          </figure>
        ))}
      </div>
      <div className="mt-2 flex items-center gap-3">
        <p className="text-[13px] text-wax-500" role="status">
          {loops === null
            ? 'The loops are being made …'
            : loops === 'none'
              ? 'The loops could not be made. Try again in a while.'
              : ''}
        </p>
        <Button className="ml-auto" onClick={onClose}>
          Done comparing
        </Button>
      </div>
    </section>
  );
}

/** The loop of one version in place of its picture, begun by a press. */
export function VersionLoop({ id, plays }: { id: Id; plays: boolean }) {
  return plays ? <Playing id={id} /> : <Still id={id} />;
}

function Playing({ id }: { id: Id }) {
  const loops = useLoops([id]);
  return isMade(loops) ? (
    <img src={loops[0]} alt="" data-plays="true" className={PICTURE} />
  ) : (
    <>
      <Still id={id} waits={loops === null} />
      {loops === 'none' ? <p className="text-xs text-warn">The loop could not be made. Try again in a while.</p> : null}
    </>
  );
}

function Still({ id, waits = false }: { id: Id; waits?: boolean }) {
  return (
    <img
      src={`/api/versions/${id}/picture.png`}
      alt=""
      loading="lazy"
      className={`${PICTURE} ${waits ? 'animate-pulse motion-reduce:animate-none' : ''}`}
    />
  );
}
