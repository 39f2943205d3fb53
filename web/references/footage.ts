/** Footage on its way in: sent, taken apart by a worker, watched and stopped. */
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

/** Follows footage until it is done, or no longer comes. */
function follow(id: string, signal: AbortSignal, tell: (now: Footage) => void): Promise<Footage> {
  return new Promise((done, failed) => {
    const source = new EventSource(`/api/footage/${id}/events`);
    const stop = (): void => {
      source.close();
      void fetch(`/api/footage/${id}/stop`, { method: 'POST' }).catch(() => undefined);
      failed(new DOMException('Stopped', 'AbortError'));
    };
    signal.addEventListener('abort', stop, { once: true });
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const now = JSON.parse(data) as Footage;
      tell(now);
      if (now.state === 'waiting' || now.state === 'running') return;
      source.close();
      signal.removeEventListener('abort', stop);
      done(now);
    };
  });
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
  const answer = await fetch(`/api/footage?name=${encodeURIComponent(file.name)}&rate=${rate ?? ''}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
    signal,
  });
  const body: unknown = await answer.json().catch(() => ({}));
  if (!answer.ok)
    throw new Error(`${file.name}: ${(body as { title?: string }).title ?? 'the server did not take it.'}`);
  const came = await follow((body as Footage).id, signal, (now) => {
    tell(now.done, Math.max(1, now.frames));
  });
  if (came.state !== 'done') throw new Error(`${file.name}: ${came.trouble ?? 'it was stopped.'}`);
  return came;
}
