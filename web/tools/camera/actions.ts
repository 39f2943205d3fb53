/** Actions of the camera: standing beside it, setting it on a frame, shaking it, safe areas. */
import { addShake, CAMERA_VALUES, setCameraKey } from '@tallow/core/edit';
import { randomId, type Id } from '@tallow/core/document';
import { nextSeed } from '@tallow/core/geometry';
import { key, named, of } from '../../actions/action.ts';
import { setShowing, showing } from '../../picture/showing.ts';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { edit } from '../../shot/document.ts';
import { filmCamera, isFilming } from './filming.ts';

const assemble = of('Assemble');

function shakeHere(): void {
  const frame = shotFrameNow();
  let made: Id | null = null;
  edit('shake the camera', (doc) => {
    const added = addShake(doc, frame, nextSeed(frame), randomId);
    made = added.shakeId;
    return added.doc;
  });
  if (made) filmCamera(true);
}

export const CAMERA_ACTIONS = named({
  film: assemble('Stand beside the camera, or look through it', [key('KeyF', { alt: true, shift: true })], () => {
    filmCamera(!isFilming());
  }),
  keyCamera: assemble('Set where the camera looks on this frame', [key('KeyK', { alt: true, shift: true })], () => {
    const frame = shotFrameNow();
    edit('camera set here', (doc) =>
      CAMERA_VALUES.reduce((next, which) => setCameraKey(next, which, frame, 'soft'), doc),
    );
  }),
  shake: assemble('Shake the camera from this frame on', [key('KeyJ', { alt: true, shift: true })], shakeHere),
  safe: assemble('Safe areas', [key('KeyY', { alt: true, shift: true })], () => {
    setShowing({ safe: !showing().safe });
  }),
});
