/** The panel of the selected starter. */
import { find, type Starter } from '@tallow/core/document';
import { touchedOf } from '@tallow/core/derived';
import { deleteStarter, releaseStarter, setLayer } from '@tallow/core/edit';
import { nextSeed } from '@tallow/core/geometry';
import { starterOf } from '@tallow/core/starters';
import { Dices, Eye, EyeOff, Trash2 } from 'lucide-react';
import { Button } from '../parts/button.tsx';
import { Heading, Line, Small } from '../parts/panel.tsx';
import { withDrawings } from '../saving/drawings.ts';
import type { Current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { dropPreview, layNow } from './laying.ts';
import { selectPlanned, usePlan } from './plan.ts';
import { Presets } from './starter-presets.tsx';
import { StarterSettings } from './starter-settings.tsx';
import { FollowedPath, StarterTime } from './starter-time.tsx';

/** Its name and seed, and how far it has been laid. */
function StarterHeading({ laid, seed }: { laid: Starter; seed: number }) {
  const laying = usePlan((s) => s.laying);
  const kind = starterOf(laid.effect);
  return (
    <>
      <Heading
        aside={
          <span className="flex gap-1">
            <Small
              title="Another seed: the same settings, other shapes"
              onClick={() => {
                void layNow({ ...laid, seed: nextSeed(laid.seed) }, 'another seed');
              }}
            >
              <Dices size={14} /> <span className="max-w-16 truncate font-mono text-xs">{seed}</span>
            </Small>
            <Small
              title="Delete it with everything it laid"
              onClick={() => {
                withDrawings(
                  Object.values(laid.laid)
                    .flat()
                    .map((each) => each.drawingId),
                  () => {
                    edit(`delete ${kind.name.toLowerCase()}`, (doc) => deleteStarter(doc, laid.id));
                    selectPlanned(null);
                  },
                );
              }}
            >
              <Trash2 size={14} />
            </Small>
          </span>
        }
      >
        {kind.name}
      </Heading>
      <div className="h-5 text-xs text-wax-500" data-testid="laying">
        {laying ? (
          <span className="flex items-center gap-2">
            <progress className="h-1.5 flex-1" value={laying.done} max={laying.of} />
            {laying.done} of {laying.of}
            <button type="button" className="text-flame underline" onClick={dropPreview}>
              Stop
            </button>
          </span>
        ) : (
          kind.says
        )}
      </div>
    </>
  );
}

function Outputs({ now, starter }: { now: Current; starter: Starter }) {
  const kind = starterOf(starter.effect);
  return (
    <div className="flex flex-wrap gap-1.5 py-1" role="group" aria-label="Layers laid">
      {find(now.doc, 'layer', starter.layers['balls']) ? (
        <Small
          title="Hides all but the balls it is built on, to draw the rest by hand"
          onClick={() => {
            edit('only the balls', (doc) =>
              Object.entries(starter.layers).reduce(
                (d, [key, id]) => setLayer(d, id, { visible: key === 'balls' }),
                doc,
              ),
            );
          }}
        >
          Only the balls
        </Small>
      ) : null}
      {kind.outputs.map(({ key, name }) => {
        const layer = find(now.doc, 'layer', starter.layers[key]);
        if (!layer) return null;
        return (
          <button
            key={key}
            type="button"
            aria-pressed={layer.visible}
            data-tip={layer.visible ? `Hide ${layer.name}` : `Show ${layer.name}`}
            className={`moves flex h-8 items-center gap-1.5 rounded-lg px-2 text-[12px] ${layer.visible ? 'bg-soot-800 text-wax-100' : 'text-wax-500 hover:bg-soot-800'}`}
            onClick={() => {
              edit(layer.visible ? 'hide layer' : 'show layer', (doc) =>
                setLayer(doc, layer.id, { visible: !layer.visible }),
              );
            }}
          >
            {layer.visible ? <Eye size={13} /> : <EyeOff size={13} />}
            {layer.name === name ? name.replace(`${kind.name} `, '') : layer.name}
          </button>
        );
      })}
    </div>
  );
}

/** Drawings of it that were changed by hand are kept, until they are laid over. */
function ChangedByHand({ now, laid }: { now: Current; laid: Starter }) {
  const touched = touchedOf(now.doc, laid).length;
  if (touched === 0) return null;
  return (
    <div className="my-1 rounded-lg bg-soot-950 p-2 text-[13px] text-wax-300" data-testid="by-hand">
      {touched === 1 ? 'One drawing was' : `${touched} drawings were`} changed by hand and will be kept.
      <Button
        className="mt-1.5 !h-8"
        onClick={() => {
          void layNow(laid, 'lay over drawings by hand', 'lay over');
        }}
      >
        Lay over {touched === 1 ? 'it' : 'them'}
      </Button>
    </div>
  );
}

export function StarterPanel({ now, starter: laid }: { now: Current; starter: Starter }) {
  const moving = usePlan((s) => s.moving);
  const starter = moving?.id === laid.id ? moving : laid;
  return (
    <>
      <StarterHeading laid={laid} seed={starter.seed} />
      <Presets starter={starter} />
      <Line />
      <StarterSettings now={now} laid={laid} starter={starter} />
      <Line />
      <StarterTime now={now} laid={laid} starter={starter} />
      {starterOf(starter.effect).follows === 'path' ? <FollowedPath now={now} laid={laid} starter={starter} /> : null}
      <Outputs now={now} starter={laid} />
      <ChangedByHand now={now} laid={laid} />
      <div className="pb-1">
        <Small
          title="Its layers become ordinary ones, and are not laid again"
          onClick={() => {
            edit('let go of starter', (doc) => releaseStarter(doc, laid.id));
            selectPlanned(null);
          }}
        >
          Let its layers go
        </Small>
      </div>
    </>
  );
}
