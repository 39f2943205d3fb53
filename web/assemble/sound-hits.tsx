/** The hits of a sound: gone to, shaken at, and made borders of phases. */
import { standing } from '@tallow/core/assembly';
import { find, findAll, randomId, shotOf, type Id, type ShotDocument, type Sound } from '@tallow/core/document';
import { addShake, setPlan, setSound } from '@tallow/core/edit';
import { nextSeed } from '@tallow/core/geometry';
import { phasesAt } from '@tallow/core/plan';
import { elementLength } from '@tallow/core/timing';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { act } from '../actions/action.ts';
import { titleOf } from '../actions/key-text.ts';
import { ITEM, Menu } from '../parts/menu.tsx';
import { Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { useReadFrame } from '../playback/read-frame.ts';
import { goToShotFrame } from '../playback/shot-time.ts';
import { edit, endGesture, say } from '../shot/document.ts';
import { SOUND_ACTIONS } from '../sound/actions.ts';
import { frameOfHit, hitsOf } from '../sound/hits.ts';
import { useRecordings, type Recording } from '../sound/recordings.ts';

const SMALL_BUTTON =
  'moves flex h-8 items-center gap-1.5 rounded-lg bg-soot-800 px-2.5 text-[13px] text-wax-300 hover:bg-soot-700 hover:text-wax-100';

/** What is said of the hits of a sound. */
function hitWords(recording: Recording | undefined, count: number): string {
  if (recording?.state === 'missing') return 'This sound cannot be read here: bring it in again.';
  if (recording?.state !== 'there') return 'Looked through for hits …';
  return count === 0 ? 'No hit found' : `${count} ${count === 1 ? 'hit' : 'hits'} found`;
}

interface Phased {
  readonly elementId: Id;
  readonly name: string;
  /** Frames of the element on which something hits. */
  readonly frames: readonly number[];
}

/** The elements on which hits fall while they are seen, with the frames of theirs. */
function underHits(doc: ShotDocument, hits: readonly number[]): Phased[] {
  const found = new Map<Id, Phased>();
  for (const plane of findAll(doc, 'plane', shotOf(doc).planes))
    for (const placement of findAll(doc, 'placement', plane.placements)) {
      const element = find(doc, 'element', placement.elementId);
      if (!element || found.has(element.id)) continue;
      const frames = hits.flatMap((hit) => {
        const moment = standing(doc, [placement], hit)?.moment;
        return moment?.turn === 0 && moment.frame > 0 ? moment.frame : [];
      });
      if (frames.length > 0) found.set(element.id, { elementId: element.id, name: element.name, frames });
    }
  return [...found.values()];
}

export function Hits({ doc, sound }: { doc: ShotDocument; sound: Sound }) {
  const recordings = useRecordings();
  const shotFrame = useReadFrame((s) => s.frame);
  const { rate, length } = shotOf(doc);
  const recording = recordings[sound.asset];
  const frames = hitsOf(sound, rate, recordings)
    .map(frameOfHit)
    .filter((frame) => frame >= 0 && frame < length);
  const nearest = frames.toSorted((a, b) => Math.abs(a - shotFrame) - Math.abs(b - shotFrame))[0];
  const noHit = nearest === undefined ? 'No hit of it falls into the shot.' : null;
  const phased = underHits(doc, frames);
  return (
    <>
      <Slider
        label="Hits as faint as"
        title="How much fainter than the strongest a hit may be"
        unit="%"
        min={0}
        max={100}
        value={sound.hits * 100}
        onMove={(to) => {
          edit('hits of a sound', (now) => setSound(now, sound.id, { hits: to / 100 }), `sound-${sound.id}-hits`);
        }}
        onDone={endGesture}
      />
      <div className="flex items-center gap-1.5 py-0.5 text-xs text-wax-500" data-testid="hits">
        <span className="min-w-0 flex-1">{hitWords(recording, frames.length)}</span>
        {(
          [
            [SOUND_ACTIONS.previousHit, 'The hit before', <ChevronLeft key="i" size={14} />],
            [SOUND_ACTIONS.nextHit, 'The next hit', <ChevronRight key="i" size={14} />],
          ] as const
        ).map(([action, name, icon]) => (
          <Small
            key={name}
            name={name}
            title={titleOf(action)}
            whyNot={noHit}
            onClick={() => {
              act(action);
            }}
          >
            {icon}
          </Small>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          title="The camera shakes from the hit nearest to the playhead on"
          whyNot={noHit}
          onClick={() => {
            if (nearest === undefined) return;
            edit('shake at a hit', (now) => addShake(now, nearest, nextSeed(nearest), randomId).doc);
            goToShotFrame(nearest);
            say(`The camera shakes from frame ${nearest + 1} on. How much is set beside the camera.`);
          }}
        >
          Shake at this hit
        </Small>
        {phased.length === 0 ? (
          <Small whyNot="No hit falls on an element while it is seen." onClick={() => undefined}>
            Phases at the hits
          </Small>
        ) : (
          <Menu label="Phases at the hits" align="start" className={SMALL_BUTTON} trigger="Phases at the hits">
            {phased.map(({ elementId, name, frames: at }) => (
              <DropdownMenu.Item
                key={elementId}
                className={ITEM}
                onSelect={() => {
                  edit('phases at hits', (now) => {
                    const element = find(now, 'element', elementId);
                    if (!element) return now;
                    const phases = phasesAt(element.phases, elementLength(now, element), at, randomId);
                    return setPlan(now, elementId, { phases });
                  });
                  say(`The phases of ${name} begin where something hits.`);
                }}
              >
                {name}
              </DropdownMenu.Item>
            ))}
          </Menu>
        )}
      </div>
    </>
  );
}
