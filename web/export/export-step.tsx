/** The Export step: frames to take away, and what was taken before. */
import { shotOf } from '@tallow/core/document';
import { secondsText } from '@tallow/core/timing';
import { Download, Trash2, X } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Refused, request, Unreachable } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { say, useDocument } from '../state/document.ts';

const isRunning = ({ state }: ExportInfo): boolean => state === 'waiting' || state === 'running';
const sizeText = (bytes: number): string =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
const tellTrouble = (error: unknown): void => {
  if (error instanceof Refused || error instanceof Unreachable) say(error.message);
  else throw error;
};

/** The shot's exports, kept up to date while one is under way. */
function useExports(shotId: string | undefined) {
  const [list, setList] = useState<readonly ExportInfo[] | null>(null);
  const watched = useRef(new Map<string, EventSource>());
  const reload = useCallback(async () => {
    if (shotId) setList(await request<ExportInfo[]>('GET', `/shots/${shotId}/exports`));
  }, [shotId]);
  useEffect(() => {
    reload().catch(tellTrouble);
    const sources = watched.current;
    return () => {
      for (const source of sources.values()) source.close();
      sources.clear();
    };
  }, [reload]);
  useEffect(() => {
    for (const info of list ?? []) {
      if (!isRunning(info) || watched.current.has(info.id)) continue;
      const source = new EventSource(`/api/exports/${info.id}/events`);
      watched.current.set(info.id, source);
      source.onmessage = (event: MessageEvent<string>) => {
        const next = JSON.parse(event.data) as ExportInfo;
        setList((all) => all?.map((each) => (each.id === next.id ? next : each)) ?? null);
        if (isRunning(next)) return;
        source.close();
        watched.current.delete(info.id);
      };
    }
  }, [list]);
  return { list, reload };
}

const STATES: Record<ExportInfo['state'], string> = {
  waiting: 'Waiting',
  running: 'Rendering',
  done: 'Done',
  stopped: 'Stopped',
  failed: 'Failed',
};

function Row({ info, reload }: { info: ExportInfo; reload: () => Promise<void> }) {
  const run = (work: Promise<unknown>): void => {
    work.then(reload).catch(tellTrouble);
  };
  const when = new Date(info.createdAt).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  return (
    <li data-testid="export" data-state={info.state} className="rounded-[10px] bg-soot-900 px-4 py-3">
      <div className="flex items-center gap-4">
        <div className="min-w-0 flex-1">
          <div className="truncate font-medium">{info.fileName}</div>
          <div className="text-[13px] text-wax-500">
            {info.frames} frames · {info.background ? 'with background' : 'transparent'} · {when}
            {info.bytes === null ? '' : ` · ${sizeText(info.bytes)}`}
          </div>
          {info.trouble ? <div className="text-[13px] text-harm">{info.trouble}</div> : null}
        </div>
        <span
          className={`font-mono text-xs ${info.state === 'done' ? 'text-sound' : info.state === 'failed' ? 'text-harm' : 'text-wax-300'}`}
        >
          {isRunning(info) ? `${STATES[info.state]} ${info.done} of ${info.frames}` : STATES[info.state]}
        </span>
        {info.state === 'done' ? (
          <a
            href={`/api/exports/${info.id}/file`}
            download
            className="moves inline-flex h-9 items-center gap-2 rounded-lg bg-soot-800 px-3 text-wax-100 hover:bg-soot-700"
          >
            <Download size={15} /> Download
          </a>
        ) : null}
        {isRunning(info) ? (
          <Button
            onClick={() => {
              run(request('POST', `/exports/${info.id}/stop`));
            }}
          >
            <X size={15} /> Stop
          </Button>
        ) : (
          <button
            type="button"
            aria-label={`Delete ${info.fileName}`}
            title="Delete this export"
            className="moves grid size-9 place-items-center rounded-lg text-wax-500 hover:bg-soot-800 hover:text-wax-100"
            onClick={() => {
              run(request('DELETE', `/exports/${info.id}`));
            }}
          >
            <Trash2 size={15} />
          </button>
        )}
      </div>
      {isRunning(info) ? (
        <div
          role="progressbar"
          aria-label={info.fileName}
          aria-valuemin={0}
          aria-valuemax={info.frames}
          aria-valuenow={info.done}
          className="mt-3 h-1 overflow-hidden rounded bg-soot-800"
        >
          <div className="h-full bg-flame" style={{ width: `${(100 * info.done) / info.frames}%` }} />
        </div>
      ) : null}
    </li>
  );
}

export function ExportStep() {
  const doc = useDocument((s) => s.doc);
  const saving = useDocument((s) => s.saving);
  const [background, setBackground] = useState(false);
  const { list, reload } = useExports(doc?.shotId);
  if (!doc) return null;
  const shot = shotOf(doc);
  const start = (): void => {
    request<ExportInfo>('POST', `/shots/${shot.id}/exports`, { background }).then(reload).catch(tellTrouble);
  };
  const whyNot = saving.state === 'saved' ? null : 'Wait until everything is saved: the server renders what it has.';
  return (
    <div className="flex min-h-0 flex-1 gap-8 overflow-y-auto bg-soot-950 p-8">
      <section className="w-[360px] shrink-0 space-y-5">
        <h1 className="font-name text-2xl">Take away</h1>
        <img
          src={`/api/shots/${shot.id}/picture.png?${saving.state}`}
          alt={`Frame 1 of ${shot.name}`}
          className="w-full rounded-[10px] bg-surround object-contain"
          style={{ aspectRatio: `${shot.width} / ${shot.height}`, maxHeight: 240 }}
        />
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-[13px]">
          <dt className="text-wax-500">Frames</dt>
          <dd className="font-mono text-xs leading-5">
            {shot.length} · {secondsText(shot.length, shot.rate)} at {shot.rate} fps
          </dd>
          <dt className="text-wax-500">Size</dt>
          <dd className="font-mono text-xs leading-5">
            {shot.width} × {shot.height} px
          </dd>
          <dt className="text-wax-500">Numbered</dt>
          <dd className="font-mono text-xs leading-5">0001 to {String(shot.length).padStart(4, '0')}</dd>
        </dl>
        <fieldset className="space-y-1">
          <legend className="mb-1 text-[13px] text-wax-500">PNG, lossless, in one zip</legend>
          <label className="flex h-8 items-center gap-2">
            <input
              type="radio"
              name="background"
              checked={!background}
              onChange={() => {
                setBackground(false);
              }}
              className="accent-flame"
            />{' '}
            Transparent, drawings only
          </label>
          <label
            className={`flex h-8 items-center gap-2 ${shot.background === null ? 'text-wax-500' : ''}`}
            title={shot.background === null ? 'This shot has no background colour' : undefined}
          >
            <input
              type="radio"
              name="background"
              checked={background}
              disabled={shot.background === null}
              onChange={() => {
                setBackground(true);
              }}
              className="accent-flame"
            />{' '}
            With the background colour
          </label>
        </fieldset>
        <Button look="primary" whyNot={whyNot} onClick={start} className="w-full">
          Export {shot.length} frames
        </Button>
        <p className="text-[13px] text-wax-500">Guide layers and the onion skin are never in it.</p>
      </section>
      <section className="min-w-0 flex-1" aria-label="Exports">
        <h2 className="font-name mb-4 text-lg text-wax-300">Exports of this shot</h2>
        {list?.length === 0 ? (
          <p className="text-wax-500">Nothing yet. What you export is listed here and can be fetched again.</p>
        ) : null}
        <ul className="space-y-2">
          {list?.map((info) => (
            <Row key={info.id} info={info} reload={reload} />
          ))}
        </ul>
      </section>
    </div>
  );
}
