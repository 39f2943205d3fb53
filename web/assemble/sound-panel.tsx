/** The settings of a sound: what is heard of it, how loud, and what its hits are good for. */
import { find, randomId, shotOf, type Id, type ShotDocument, type Sound } from '@tallow/core/document';
import { copySound, removeSound, setSound, trimSoundEnd, trimSoundStart } from '@tallow/core/edit';
import { frameOfSecond } from '@tallow/core/sound';
import { Volume2, VolumeX } from 'lucide-react';
import { useState } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { Line, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { shotFrameNow } from '../playback/shot-time.ts';
import { edit, endGesture } from '../shot/document.ts';
import { selectSound } from '../tools/place/placing.ts';
import { Hits } from './sound-hits.tsx';
import { ThingButtons } from './thing-buttons.tsx';

export function SoundPanel({ doc, sound }: { doc: ShotDocument; sound: Sound }) {
  const [naming, setNaming] = useState(false);
  const { id, name, part, seconds, start, heard } = sound;
  const { rate, length } = shotOf(doc);
  const set = (step: string, settings: Parameters<typeof setSound>[2], gesture?: string): void => {
    edit(step, (now) => setSound(now, id, settings), gesture && `sound-${id}-${gesture}`);
  };
  const slider = (
    label: string,
    title: string,
    unit: string,
    [min, max, step]: readonly [number, number, number],
    value: number,
    onMove: (to: number) => void,
    typed?: { min: number; max: number },
  ) => (
    <Slider
      label={label}
      title={title}
      unit={unit}
      min={min}
      max={max}
      step={step}
      value={value}
      {...(typed ? { typed } : {})}
      onMove={onMove}
      onDone={endGesture}
    />
  );
  const ends = frameOfSecond(sound, rate, part.to);
  return (
    <section aria-label="Sound" data-testid="sound-panel" className="pb-2">
      <div className="flex items-center justify-between gap-1">
        {naming ? (
          <NameField
            label="Name of the sound"
            value={name}
            onDone={(typed) => {
              setNaming(false);
              if (typed && typed !== name) set('name of a sound', { name: typed });
            }}
          />
        ) : (
          <button
            type="button"
            className="font-name min-w-0 flex-1 truncate text-left text-[17px]"
            data-tip={`${name} · click to rename`}
            onClick={() => {
              setNaming(true);
            }}
          >
            {name}
          </button>
        )}
        <ThingButtons
          thing="sound"
          toggle={{
            label: heard ? 'Silence this sound' : 'Hear this sound again',
            icon: heard ? Volume2 : VolumeX,
            onPress: () => {
              set(heard ? 'silence a sound' : 'hear a sound', { heard: !heard });
            },
          }}
          onTakeAway={() => {
            edit('take a sound away', (now) => removeSound(now, id));
            selectSound(null);
          }}
          onAll={() => {
            selectSound(null);
          }}
        />
      </div>
      <p className="truncate text-xs text-wax-500">
        {part.to - part.from < seconds - 0.005 ? `${(part.to - part.from).toFixed(2)} s of ` : ''}
        {seconds.toFixed(2)} s
        {ends > length + 0.5 ? ` · goes on ${Math.round(ends - length)} frames past the end of the shot` : ''}
      </p>
      {slider(
        'Loudness',
        '100 is as it was recorded',
        '%',
        [0, 200, 1],
        sound.loudness * 100,
        (to) => {
          set('loudness', { loudness: to / 100 }, 'loudness');
        },
        { min: 0, max: 400 },
      )}
      {slider(
        'Comes over',
        'Seconds over which it gets loud',
        's',
        [0, Math.min(4, part.to - part.from), 0.05],
        sound.fadeIn,
        (to) => {
          set('sound comes', { fadeIn: to }, 'in');
        },
        { min: 0, max: seconds },
      )}
      {slider(
        'Goes over',
        'Seconds over which it dies away',
        's',
        [0, Math.min(4, part.to - part.from), 0.05],
        sound.fadeOut,
        (to) => {
          set('sound goes', { fadeOut: to }, 'out');
        },
        { min: 0, max: seconds },
      )}
      {slider(
        'Begins on',
        'Frame of the shot; parts of one too',
        'fr',
        [1, length, 1],
        start + 1,
        (to) => {
          set('move a sound', { start: to - 1 }, 'start');
        },
        { min: -9999, max: 99_999 },
      )}
      {slider('Heard from', 'Seconds of the recording', 's', [0, seconds, 0.01], part.from, (to) => {
        edit(
          'trim a sound',
          (now) => trimSoundStart(now, id, frameOfSecond(find(now, 'sound', id) ?? sound, rate, to)),
          `sound-${id}-from`,
        );
      })}
      {slider('Heard to', 'Seconds of the recording', 's', [0, seconds, 0.01], part.to, (to) => {
        edit(
          'trim a sound',
          (now) => trimSoundEnd(now, id, frameOfSecond(find(now, 'sound', id) ?? sound, rate, to)),
          `sound-${id}-to`,
        );
      })}
      <div className="flex py-1">
        <Small
          title="The same sound once more, from the playhead on"
          onClick={() => {
            let made: Id | null = null;
            edit('one more of a sound', (now) => {
              const copied = copySound(now, id, shotFrameNow(), randomId);
              made = copied.soundId;
              return copied.doc;
            });
            selectSound(made);
          }}
        >
          One more here
        </Small>
      </div>
      <Line />
      <Hits doc={doc} sound={sound} />
    </section>
  );
}
