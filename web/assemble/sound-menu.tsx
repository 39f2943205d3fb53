/** Bringing sound into the shot: from a file, or made by code; while one is on its way, how to stop it. */
import type { Id } from '@tallow/core/document';
import { MADE_SOUNDS, type MadeSoundName } from '@tallow/core/sound';
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useRef } from 'react';
import { ITEM, Menu } from '../parts/menu.tsx';
import { selectSound } from '../tools/place/placing.ts';
import { bringSound, makeSound, SOUNDS_ACCEPTED, stopSound, useBringing } from '../sound/bring.ts';

const selectMade = (made: Id | null): void => {
  if (made) selectSound(made);
};

export function SoundMenu({ className }: { className: string }) {
  const coming = useBringing((s) => s.coming);
  const chooser = useRef<HTMLInputElement>(null);
  if (coming !== null)
    return (
      <button type="button" className={className} data-tip={`${coming} is on its way`} onClick={stopSound}>
        <progress className="h-1.5 w-8" aria-label={`${coming} is on its way`} /> Stop
      </button>
    );
  return (
    <>
      <input
        ref={chooser}
        type="file"
        accept={SOUNDS_ACCEPTED}
        aria-label="Sound file"
        className="hidden"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void bringSound(file).then(selectMade);
        }}
      />
      <Menu
        label="Sound"
        className={className}
        trigger={
          <>
            <Plus size={14} /> Sound
          </>
        }
      >
        <DropdownMenu.Item className={ITEM} onSelect={() => chooser.current?.click()}>
          From a file: WAV, OGG, MP3, FLAC
        </DropdownMenu.Item>
        <DropdownMenu.Separator className="my-1 h-px bg-soot-700" />
        {(Object.keys(MADE_SOUNDS) as MadeSoundName[]).map((made) => (
          <DropdownMenu.Item
            key={made}
            className={ITEM}
            data-tip="Made anew each time: no two sound alike"
            onSelect={() => {
              void makeSound(made).then(selectMade);
            }}
          >
            {MADE_SOUNDS[made].name}
          </DropdownMenu.Item>
        ))}
      </Menu>
    </>
  );
}
