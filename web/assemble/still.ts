/** This frame as a picture: to the clipboard, as a file, as a still plate. */
import { shotOf } from '@tallow/core/document';
import { shotFrameNow } from '../playback/shot-time.ts';
import { layStill } from '../references/references.ts';
import { say, useDocument } from '../shot/document.ts';
import { painter } from '../workers/painter-client.ts';
import { handOver } from '../parts/hand-over.ts';

type StillTo = 'clipboard' | 'file' | 'plate';

export async function takeStill(to: StillTo): Promise<void> {
  const { doc } = useDocument.getState();
  if (!doc) return;
  const frame = shotFrameNow();
  const name = `${shotOf(doc).name} ${String(frame + 1).padStart(4, '0')}`;
  try {
    const picture = painter().still(frame);
    if (to === 'clipboard') {
      // The browser takes the promise itself, so that the press still counts when the picture comes.
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]);
      say(`Frame ${frame + 1} is on the clipboard.`);
    } else if (to === 'file') {
      handOver(await picture, `${name}.png`);
    } else {
      await layStill(await picture, name);
      say(`Frame ${frame + 1} is a still plate now, as a guide.`);
    }
  } catch (error) {
    say(`The picture could not be taken: ${error instanceof Error ? error.message : String(error)}`);
  }
}
