/** Long work on the server, followed until it is over. */
interface Told {
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
}

/**
 * Follows work until it is done, stopped or failed.
 * @param path of the work, such as `/archives/7`. @param tell is called with each line of news.
 * @throws an AbortError where it was stopped from here: the server stops too.
 */
export function followJob<T extends Told>(path: string, signal?: AbortSignal, tell?: (now: T) => void): Promise<T> {
  return new Promise((done, failed) => {
    const source = new EventSource(`/api${path}/events`);
    const stop = (): void => {
      source.close();
      void fetch(`/api${path}/stop`, { method: 'POST' }).catch(() => undefined);
      failed(new DOMException('Stopped', 'AbortError'));
    };
    if (signal?.aborted) {
      stop();
      return;
    }
    signal?.addEventListener('abort', stop, { once: true });
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const now = JSON.parse(data) as T;
      tell?.(now);
      if (now.state === 'waiting' || now.state === 'running') return;
      source.close();
      signal?.removeEventListener('abort', stop);
      done(now);
    };
  });
}

/** Sends the bytes of a file. @throws what the server says of it, for the user. */
export async function uploadFile<T>(path: string, file: File, signal: AbortSignal): Promise<T> {
  const answer = await fetch(`/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
    signal,
  });
  const body: unknown = await answer.json().catch(() => ({}));
  if (!answer.ok)
    throw new Error(`${file.name}: ${(body as { title?: string }).title ?? 'the server did not take it.'}`);
  return body as T;
}
