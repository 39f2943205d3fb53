/**
 * Prints of every frame of every shot of a database, for holding two states of the code against each other. Writes JSON
 * of shot names and one SHA-256 of the frame's RGBA bytes for each frame into the file it is given.
 */
import { shotOf } from '@tallow/core/document';
import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { FramePictures, picturesIn } from './assets/frame-pictures.ts';
import { migrate, openDatabase } from './db/database.ts';
import { frameDrawer, wholeShot } from './render/frames.ts';
import { shotServices } from './shots/services.ts';

const url = process.env['DATABASE_URL'];
const into = process.argv[2];
if (!url || !into) throw new Error('use npm run frames');
const database = openDatabase(url);
await migrate(database);
const { shots } = shotServices(database);
const prints: Record<string, string[]> = {};
for (const { id } of await shots.list()) {
  const { doc } = await shots.document(id);
  const { name, length, width, height } = shotOf(doc);
  const pictures = new FramePictures(doc, picturesIn(database));
  const drawer = frameDrawer(doc, { ...wholeShot(doc, true), assets: pictures.picture });
  const known = new Map<string, string>();
  const ofShot: string[] = [];
  for (let frame = 0; frame < length; frame++) {
    await pictures.at(frame);
    const key = drawer.keyOf(frame);
    const print =
      known.get(key) ??
      createHash('sha256')
        .update(drawer.draw(frame).context.getImageData(0, 0, width, height).data)
        .digest('hex');
    known.set(key, print);
    ofShot.push(print);
  }
  prints[name] = ofShot;
  console.log(`${name}: ${length} frames`);
}
writeFileSync(into, `${JSON.stringify(prints, null, 1)}\n`);
await database.destroy();
