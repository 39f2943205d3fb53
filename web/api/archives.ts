/** Archives handed to the server and read there. */
import { followJob, uploadFile } from './long-work.ts';
import type { ArchiveInfo } from './types.ts';

/** Follows an archive to its end. @throws why it did not come about, for the user; an AbortError where it was stopped. */
export async function followedArchive(
  id: string,
  signal: AbortSignal,
  tell: (done: number, of: number) => void,
): Promise<ArchiveInfo> {
  const over = await followJob<ArchiveInfo>(`/archives/${id}`, signal, ({ done, total }) => {
    tell(done, Math.max(1, total));
  });
  if (over.state !== 'done') throw new Error(over.trouble ?? 'It was stopped.');
  return over;
}

/** Hands an archive in. @throws what the server says of it, for the user. */
export const handIn = (file: File, signal: AbortSignal): Promise<ArchiveInfo> =>
  uploadFile<ArchiveInfo>(`/archives/in?name=${encodeURIComponent(file.name)}`, file, signal);

/** What came in, in words. */
export function cameText({ shots }: Pick<ArchiveInfo, 'shots'>): string {
  const counted = (n: number, one: string, many: string): string => (n === 1 ? one : `${n} ${many}`);
  const own = shots.filter(({ onShelf }) => !onShelf);
  const kept = shots.length - own.length;
  const parts = [
    ...(own.length > 0 ? [counted(own.length, `“${own[0]!.name}”`, 'shots')] : []),
    ...(kept > 0 ? [counted(kept, 'an effect of the shelf', 'effects of the shelf')] : []),
  ];
  const again = shots.filter(({ renewed }) => renewed).length;
  const beside =
    again === 0
      ? ''
      : again === 1
        ? ' One was here already: it stands beside that.'
        : ` ${again} were here already: they stand beside those.`;
  return `${parts.join(' and ')} came in.${beside}`;
}
