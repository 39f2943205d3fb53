/** One element or layer of a version, brought back alone. */
import { Puzzle } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import type { Version } from '../api/types.ts';
import { ITEM, Menu } from '../parts/menu.tsx';
import { say } from '../shot/document.ts';
import { bringElementBack, bringLayerBeside, partsOf, type VersionPart } from './versions.ts';

export function PartMenu({ version }: { version: Version }) {
  const [parts, setParts] = useState<readonly VersionPart[] | null>(null);
  const look = (): void => {
    if (parts) return;
    partsOf(version)
      .then(setParts)
      .catch((error: unknown) => {
        say(error instanceof Error ? error.message : String(error));
      });
  };
  return (
    <span onPointerDownCapture={look} onKeyDownCapture={look}>
      <Menu
        label={`Only a part of “${version.name}”`}
        className="moves inline-flex h-9 items-center gap-2 rounded-lg bg-soot-800 px-3 text-wax-300 hover:bg-soot-700 hover:text-wax-100"
        trigger={
          <>
            <Puzzle size={15} /> Only a part
          </>
        }
        align="start"
      >
        {parts === null ? <p className="min-h-56 px-2 py-1 text-[13px] text-wax-500">Looking …</p> : null}
        {parts?.map((part) => (
          <div key={part.id}>
            <DropdownMenu.Item className={ITEM} onSelect={() => void bringElementBack(version, part)}>
              {part.name}, as it was
            </DropdownMenu.Item>
            {part.layers.map((layer) => (
              <DropdownMenu.Item
                key={layer.id}
                className={`${ITEM} !pl-6 text-[13px] text-wax-300`}
                onSelect={() => void bringLayerBeside(version, layer)}
              >
                {layer.name}, over what it is now
              </DropdownMenu.Item>
            ))}
          </div>
        ))}
      </Menu>
    </span>
  );
}
