/** The last export once more, in one press from anywhere at the desk. */
import { shotOf } from '@tallow/core/document';
import { ctrl, named, of } from '../actions/action.ts';
import { request } from '../api/client.ts';
import { followJob } from '../api/long-work.ts';
import type { ExportInfo } from '../api/types.ts';
import { say, useDocument } from '../shot/document.ts';
import { fetchFile } from '../parts/hand-over.ts';
import { tellTrouble } from './export-row.tsx';

const general = of('General');

/** Says when an export is ready, or why it will not be. */
function follow(info: ExportInfo): void {
  void followJob<ExportInfo>(`/exports/${info.id}`).then((now) => {
    if (now.state === 'done')
      say(`${now.fileName} is ready.`, {
        label: 'Download',
        run: () => {
          fetchFile(`/api/exports/${now.id}/file`, now.fileName);
        },
      });
    else if (now.state === 'failed') say(`The export failed: ${now.trouble ?? 'the worker gave no reason'}`);
  });
}

/** @returns the export that was begun, or null where nothing was exported before. */
export async function exportAgain(): Promise<ExportInfo | null> {
  const { doc } = useDocument.getState();
  if (!doc) return null;
  const shot = shotOf(doc);
  const [last] = await request<ExportInfo[]>('GET', `/shots/${shot.id}/exports`);
  if (!last) {
    say('Nothing of this shot was exported yet. Choose what to take away in the Export step.');
    return null;
  }
  // A shot that has become shorter ends where it ends now.
  const to = Math.min(last.settings.to, shot.length);
  const settings = { ...last.settings, to, from: Math.min(last.settings.from, to - 1) };
  const begun = await request<ExportInfo>('POST', `/shots/${shot.id}/exports`, settings);
  say(`Exporting ${begun.fileName} again, ${begun.frames} frames.`);
  follow(begun);
  return begun;
}

export const EXPORT_ACTIONS = named({
  again: general(
    'Export again as last time',
    [ctrl('KeyE')],
    () => {
      exportAgain().catch(tellTrouble);
    },
    {
      whyNot: () =>
        useDocument.getState().saving.state === 'saved'
          ? null
          : 'Wait until everything is saved: the server renders what it has.',
    },
  ),
});
