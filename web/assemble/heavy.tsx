/** A shot that plays slower than it should: what each use costs, and playing at half size. */
import { find, shotOf } from '@tallow/core/document';
import { labelOfUse } from '@tallow/core/timing';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { ITEM, Menu } from '../parts/menu.tsx';
import { openEngine } from '../picture/open-engine.ts';
import { setPlayback, usePlayback } from '../playback/playback.ts';
import { shotFrameNow } from '../playback/shot-time.ts';
import { useDocument } from '../shot/document.ts';
import { selectUses } from '../tools/place/placing.ts';
import { besidePainter } from '../workers/painter-client.ts';

/** Of its rate, below which a shot is called heavy. */
const HEAVY = 0.8;

export function Heavy() {
  const doc = useDocument((s) => s.doc);
  const { reached, half, speed } = usePlayback();
  const [costs, setCosts] = useState<readonly { placementId: string; ms: number }[] | null>(null);
  if (!doc) return null;
  const { rate } = shotOf(doc);
  const isHeavy = reached !== null && reached < HEAVY * rate * speed;
  if (!isHeavy && !half) return null;
  const look = (): void => {
    const place = openEngine()?.place();
    if (!place) return;
    setCosts(null);
    void besidePainter().costs(place, place.view, shotFrameNow()).then(setCosts);
  };
  const nameOf = (id: string): string => {
    const placement = find(doc, 'placement', id);
    return placement ? labelOfUse(doc, placement) : 'gone';
  };
  return (
    <Menu
      label="What is heavy"
      className="moves flex h-9 items-center rounded-lg px-2 text-[13px] text-warn hover:bg-soot-800"
      trigger={<span onPointerDown={look}>{half ? 'half size' : 'heavy'}</span>}
    >
      <DropdownMenu.CheckboxItem
        className={ITEM}
        checked={half}
        onSelect={(event) => {
          event.preventDefault();
        }}
        onCheckedChange={(on) => {
          setPlayback({ half: on, reached: null });
        }}
      >
        <span className="w-4">{half ? '✓' : ''}</span> Play at half size
      </DropdownMenu.CheckboxItem>
      <DropdownMenu.Separator className="my-1 h-px bg-soot-700" />
      <p className="px-2 pb-1 text-xs text-wax-500">What each costs on this frame, drawn anew</p>
      {(costs ?? []).map(({ placementId, ms }) => (
        <DropdownMenu.Item
          key={placementId}
          className={ITEM}
          onSelect={() => {
            selectUses([placementId]);
          }}
        >
          <span className="min-w-0 flex-1 truncate">{nameOf(placementId)}</span>
          <span className="pl-4 font-mono text-xs">{Math.round(ms)} ms</span>
        </DropdownMenu.Item>
      ))}
      {costs === null ? <p className="px-2 py-1 text-[13px] text-wax-500">Looking …</p> : null}
    </Menu>
  );
}
