/** Rows measured on the server: export, and the way to the first frame of a long shot. */
import { readEntity, type Layer, type ShotDocument } from '@tallow/core/document';
import { drawFrame } from '@tallow/core/render';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { AddressInfo } from 'node:net';
import { createApp } from '../server/app.ts';
import { migrate, openDatabase } from '../server/db/database.ts';
import { directRendering, makeSurface, pngOf } from '../server/render/canvas.ts';
import { pngFrames, wholeShot } from '../server/render/frames.ts';
import { shotServices } from '../server/shots/services.ts';
import { newId, shotWith } from './documents.ts';
import { sideBySide, timeRow, type Row } from './measure.ts';

async function exportRow(): Promise<Row> {
  const doc = shotWith(48, 3, 6, 48);
  const surfaces = Array.from({ length: 24 }, (_, i) => {
    const surface = makeSurface(1920, 1080);
    drawFrame(surface, doc, i * 2, [1, 0, 0, 1, 0, 0], directRendering(doc), {
      guides: false,
      background: true,
    });
    return surface;
  });
  const work = async () => {
    for await (const png of pngFrames(doc, wholeShot(doc, true))) void png;
  };
  // On 2s, 48 frames are 24 different pictures; the bare encoder gets the same 24.
  const against = async () => {
    for (const surface of surfaces) await pngOf(surface);
  };
  return timeRow(
    'export of 48 frames at 1920x1080 as PNG',
    'encoding those frames alone',
    1.3,
    await sideBySide(5, work, against),
  );
}

async function firstFrameRow(): Promise<Row> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; use npm run bench');
  const database = openDatabase(url);
  await migrate(database);
  const app: NestExpressApplication = await createApp(database);
  await app.listen(0, '127.0.0.1');
  const address = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}/api`;
  const production = newId();
  await database('productions').insert({ id: production, name: 'Bench' });
  const { shots } = shotServices(database);
  const open = async (doc: ShotDocument) => {
    await shots.insert(doc, production);
    const first = Object.values(doc.entities).flatMap((e) =>
      e.kind === 'layer' ? Object.values((e as Layer).slots).slice(0, 1) : [],
    );
    return async () => {
      const structure = (await (await fetch(`${address}/shots/${doc.shotId}`)).json()) as { entities: unknown[] };
      const bodies = (await (
        await fetch(`${address}/shots/${doc.shotId}/drawings?ids=${first.join()}`)
      ).json()) as unknown[];
      const entities = [...structure.entities, ...bodies].flatMap((body) => {
        const read = readEntity(body);
        return 'ok' in read ? [[read.ok.id, read.ok] as const] : [];
      });
      const loaded: ShotDocument = { shotId: doc.shotId, entities: Object.fromEntries(entities) };
      drawFrame(makeSurface(928, 557), loaded, 0, [0.45, 0, 0, 0.45, 0, 0], directRendering(loaded), {
        guides: true,
        background: true,
      });
    };
  };
  const [long, short] = [await open(shotWith(500)), await open(shotWith(1))];
  const row = timeRow(
    'first frame of a shot of 500 drawings',
    'first frame of a shot of one',
    1.5,
    await sideBySide(15, long, short),
  );
  await app.close();
  await database.destroy();
  return row;
}

export async function serverRows(): Promise<Row[]> {
  return [await firstFrameRow(), await exportRow()];
}
