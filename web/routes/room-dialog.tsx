/** How much room everything takes, by what it is. */
import { useEffect, useState } from 'react';
import { request } from '../api/client.ts';
import { Dialog } from '../parts/dialog.tsx';
import { sizeText } from '../parts/size-text.ts';

const PARTS = [
  ['shots', 'Shots and the shelf'],
  ['before', 'Kept of what came before'],
  ['deleted', 'Deleted, can still be brought back'],
  ['assets', 'Pictures, sounds, footage'],
  ['exports', 'Exports and archives'],
  ['loops', 'Loops of cards'],
  ['backups', 'Backups in the home'],
  ['rest', 'The database itself'],
] as const;
type Room = Readonly<Record<(typeof PARTS)[number][0] | 'free', number>>;

function Parts({ room }: { room: Room }) {
  const all = PARTS.reduce((sum, [part]) => sum + room[part], 0);
  const max = Math.max(1, ...PARTS.map(([part]) => room[part]));
  return (
    <>
      <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-4 gap-y-2.5 text-[13px]">
        {PARTS.map(([part, label]) => (
          <div key={part} className="contents" data-testid={`room-${part}`}>
            <dt className="text-wax-300">{label}</dt>
            <dd aria-hidden className="h-1.5 rounded-full bg-soot-800">
              <div className="h-full rounded-full bg-flame" style={{ width: `${(100 * room[part]) / max}%` }} />
            </dd>
            <dd className="text-right tabular-nums">{sizeText(room[part])}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5 text-[13px] text-wax-500">
        {sizeText(all)} in all; {sizeText(room.free)} of the disk are free. What is no longer needed goes by itself
        after 90 days.
      </p>
    </>
  );
}

export function RoomDialog({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const [room, setRoom] = useState<Room | string | null>(null);
  useEffect(() => {
    if (!open) return undefined;
    let over = false;
    const show = (came: Room | string): void => {
      if (!over) setRoom(came);
    };
    setRoom(null);
    request<Room>('GET', '/room').then(show, (error: unknown) => {
      show(error instanceof Error ? error.message : String(error));
    });
    return () => {
      over = true;
    };
  }, [open]);
  return (
    <Dialog title="Room taken" open={open} onOpenChange={onOpenChange}>
      <div className="min-h-[290px]">
        {room === null ? <p className="text-[13px] text-wax-500">Counting …</p> : null}
        {typeof room === 'string' ? <p role="alert">{room}</p> : null}
        {room !== null && typeof room !== 'string' ? <Parts room={room} /> : null}
      </div>
    </Dialog>
  );
}
