/** One export in the list: how far it is, and what can be done with it. */
import { Download, FolderOutput, Trash2, X } from 'lucide-react';
import { Refused, request, Unreachable } from '../api/client.ts';
import type { ExportInfo } from '../api/types.ts';
import { Button } from '../parts/button.tsx';
import { sizeText } from '../parts/size-text.ts';
import { whenText } from '../parts/when-text.ts';
import { say } from '../shot/document.ts';
import { intoFolder, whyNotFolder } from './into-folder.ts';

export const isRunning = ({ state }: ExportInfo): boolean => state === 'waiting' || state === 'running';

/** Says what the server refused; anything else is a fault of ours. */
export const tellTrouble = (error: unknown): void => {
  if (error instanceof Refused || error instanceof Unreachable) say(error.message);
  else throw error;
};

const STATES: Record<ExportInfo['state'], string> = {
  waiting: 'Waiting',
  running: 'Rendering',
  done: 'Done',
  stopped: 'Stopped',
  failed: 'Failed',
};

export function ExportLine({ info, reload }: { info: ExportInfo; reload: () => Promise<void> }) {
  const run = (work: Promise<unknown>): void => {
    work.then(reload).catch(tellTrouble);
  };
  return (
    <li data-testid="export" data-state={info.state} className="rounded-[10px] bg-soot-900 px-4 py-3">
      <div className="flex items-center gap-4">
        <div className="min-w-0 flex-1">
          <div className="truncate font-medium">{info.fileName}</div>
          <div className="text-[13px] text-wax-500">
            {info.frames} frames · {info.settings.background ? 'with background' : 'transparent'}
            {info.settings.scale === 1 ? '' : ` · ${info.settings.scale * 100} %`} · {whenText(info.createdAt)}
            {info.bytes === null ? '' : ` · ${sizeText(info.bytes)}`}
          </div>
          {info.trouble ? (
            <div className={`text-[13px] ${isRunning(info) ? 'text-warn' : 'text-harm'}`}>{info.trouble}</div>
          ) : null}
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
        {info.state === 'done' ? (
          <Button
            whyNot={whyNotFolder()}
            title="Its files put into a folder you pick, unpacked"
            onClick={() => {
              void intoFolder(info);
            }}
          >
            <FolderOutput size={15} /> Into a folder
          </Button>
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
            data-tip="Delete this export"
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
