/** Footage on its way in: sent, taken apart by a worker, watched and stopped. */
import { followJob, uploadFile } from '../api/long-work.ts';

export const FOOTAGE_ENDINGS = ['mp4', 'm4v', 'mov', 'webm', 'mkv', 'ogv'] as const;

/** Whether a file calls itself a video; the server judges by its content. */
export const isFootage = ({ name }: Pick<File, 'name'>): boolean =>
  FOOTAGE_ENDINGS.some((ending) => name.toLowerCase().endsWith(`.${ending}`));

/** Footage as the server tells of it. */
export interface Footage {
  readonly id: string;
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
  /** Frames a second it is shown at. */
  readonly rate: number | null;
  readonly frames: number;
  readonly done: number;
  readonly width: number;
  readonly height: number;
  /** Which frame comes from where, in words. */
  readonly told: string;
  readonly assets: readonly string[];
  readonly trouble: string | null;
}

/**
 * Brings a video in as pictures.
 * @param rate frames a second it is shown at, or null for its own. @param tell how far it is: frames done, and of how many.
 * @throws what the server says of it, for the user; an AbortError where it was stopped.
 */
export async function bringFootage(
  file: File,
  rate: number | null,
  signal: AbortSignal,
  tell: (done: number, of: number) => void,
): Promise<Footage> {
  tell(0, 1);
  const { id } = await uploadFile<Footage>(
    `/footage?name=${encodeURIComponent(file.name)}&rate=${rate ?? ''}`,
    file,
    signal,
  );
  const came = await followJob<Footage>(`/footage/${id}`, signal, (now) => {
    tell(now.done, Math.max(1, now.frames));
  });
  if (came.state !== 'done') throw new Error(`${file.name}: ${came.trouble ?? 'it was stopped.'}`);
  return came;
}
