/** Work that is not on the server, handed over as a file, and such a file read back. */
import { find } from '@tallow/core/document';
import { fileStem, readUnsaved, unsavedText } from '@tallow/core/formats';
import { handOver } from '../parts/hand-over.ts';
import { say, useDocument } from '../shot/document.ts';
import { openSaver } from './open-shot.ts';

const LARGEST = 512 * 1024 * 1024;

/** Hands over everything that the server does not have. */
export function saveWorkToFile(): void {
  const { doc } = useDocument.getState();
  const pending = openSaver()?.pending() ?? [];
  if (!doc || pending.length === 0) {
    say('Everything is on the server: there is nothing to save as a file.');
    return;
  }
  const shotName = find(doc, 'shot', doc.shotId)?.name ?? 'Shot';
  const text = unsavedText({ shotId: doc.shotId, shotName, pending }, new Date().toISOString());
  handOver(text, `${fileStem(shotName)}-unsaved-work.json`, 'application/json');
}

/** Puts the work of such a file into the open shot, merged with what is there. Read twice, it adds nothing. */
export async function readWorkFromFile(file: File): Promise<void> {
  const { doc } = useDocument.getState();
  const saver = openSaver();
  if (!doc || !saver) return;
  if (file.size > LARGEST) {
    say(`“${file.name}” is too large: ${Math.round(file.size / 1e6)} MB.`);
    return;
  }
  const read = readUnsaved(await file.text());
  if ('problem' in read) {
    say(`“${file.name}” was not read. ${read.problem}`);
    return;
  }
  const { shotId, shotName, pending } = read.ok;
  if (shotId !== doc.shotId) {
    say(`“${file.name}” is work on “${shotName}”. Open that shot and read it there.`);
    return;
  }
  const before = doc;
  await saver.take(pending);
  say(
    useDocument.getState().doc === before
      ? `All of “${file.name}” is in this shot already.`
      : `The work in “${file.name}” has been put in.`,
  );
}
