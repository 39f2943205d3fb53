/** A sprite sheet: the different pictures packed into one, and a JSON that says where each is and when it is seen. */
import { standing } from '@tallow/core/assembly';
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { fileStem } from '@tallow/core/formats';
import { apply, type Point } from '@tallow/core/geometry';
import { placedElements } from '@tallow/core/timing';
import { createCanvas } from '@napi-rs/canvas';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import potpack from 'potpack';
import { ZipFile } from 'yazl';
import { picturesOf } from './pictures.ts';
import type { Writer } from './writer.ts';

/** px between two pictures, so that none bleeds into another where it is drawn smaller. */
const APART = 2;

/** Where the anchor of the frontmost element lies on a frame, px of the shot; the middle where there is none. */
function anchorOn(doc: ShotDocument, frame: number): Point {
  const { width, height } = shotOf(doc);
  for (const { element, placement } of placedElements(doc)) {
    const stands = standing(doc, [placement], frame);
    if (stands) return apply(stands.matrix, placement.anchor ?? element.anchor);
  }
  return { x: width / 2, y: height / 2 };
}

export const writeSprites: Writer = async (writing) => {
  const { outline, settings, path, tell, frames } = writing;
  const found = await picturesOf(writing, settings.background);
  if (!found) return false;
  const shot = shotOf(outline);
  const boxes = found.pictures.flatMap(({ box, canvas }, picture) =>
    box && canvas ? [{ w: box.width + APART, h: box.height + APART, x: 0, y: 0, box, canvas, picture }] : [],
  );
  const { w, h } = potpack(boxes);
  const sheet = createCanvas(Math.max(1, w - APART), Math.max(1, h - APART));
  const context = sheet.getContext('2d');
  for (const { x, y, canvas } of boxes) context.drawImage(canvas, x, y);
  const stem = fileStem(shot.name);
  const anchor = anchorOn(outline, settings.from);
  const about = {
    image: `${stem}.png`,
    size: { width: sheet.width, height: sheet.height },
    source: { width: found.width, height: found.height, rate: shot.rate },
    anchor: { x: anchor.x * settings.scale, y: anchor.y * settings.scale },
    pictures: found.pictures.map(({ box }, picture) => {
      const at = boxes.find((each) => each.picture === picture);
      return at && box
        ? { x: at.x, y: at.y, width: box.width, height: box.height, left: box.left, top: box.top }
        : null;
    }),
    frames: found.shown.map(({ picture, from, frames: held }) => ({
      picture,
      frame: from + 1,
      holds: held,
      ms: Math.round((held / shot.rate) * 1e6) / 1000,
    })),
  };
  const zip = new ZipFile();
  const file = createWriteStream(path);
  const written = once(file, 'close');
  zip.outputStream.pipe(file);
  zip.addBuffer(await sheet.encode('png'), `${stem}/${stem}.png`, { compress: false });
  zip.addBuffer(Buffer.from(`${JSON.stringify(about, null, 2)}\n`), `${stem}/${stem}.json`);
  zip.end();
  await written;
  return tell(frames, true);
};
