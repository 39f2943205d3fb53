import { findAll, shotOf, type AssetId, type ShotDocument } from '@tallow/core/document';
import { platesAt, type AssetPicture } from '@tallow/core/render';
import { loadImage, type Image } from '@napi-rs/canvas';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { createHash } from 'node:crypto';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { readPicture } from './picture.ts';

export interface Asset {
  readonly sha256: AssetId;
  readonly width: number;
  readonly height: number;
}

/** Pictures and sounds from outside, each content kept once. */
@Injectable()
export class AssetsService {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  /** Keeps a picture. The same content again changes nothing. */
  async keep(content: Buffer, named: string): Promise<Asset> {
    const picture = await readPicture(content, named);
    const sha256 = createHash('sha256').update(picture.content).digest('hex');
    await this.database('assets')
      .insert({ sha256, ...picture })
      .onConflict('sha256')
      .ignore();
    return { sha256, width: picture.width, height: picture.height };
  }

  async one(sha256: AssetId): Promise<{ content: Buffer; type: string }> {
    const row = await this.database<{ sha256: string; content: Buffer; type: string }>('assets')
      .where({ sha256 })
      .first('content', 'type');
    if (!row) throw Problem.missing('This picture or sound');
    return row;
  }
}

/** The pictures a shot's plates need on some frames, ready for drawing. Those that are not there are left out. */
export async function assetPictures(
  database: Knex,
  doc: ShotDocument,
  from: number,
  to: number,
): Promise<AssetPicture> {
  if (findAll(doc, 'plate', shotOf(doc).plates).length === 0) return () => null;
  const wanted = new Set<AssetId>();
  for (let frame = from; frame < to; frame++) for (const { asset } of platesAt(doc, frame, false)) wanted.add(asset);
  const images = new Map<AssetId, Image>();
  for (const sha256 of wanted) {
    const row = await database<{ sha256: string; content: Buffer }>('assets')
      .where({ sha256 })
      .whereLike('type', 'image/%')
      .first('content');
    if (row) images.set(sha256, await loadImage(row.content));
  }
  return (asset) => images.get(asset) ?? null;
}

/** The bytes of a recording as it is kept; null where it is not there. */
export async function recordingOf(database: Knex, sha256: AssetId): Promise<Buffer | null> {
  const row = await database<{ sha256: string; content: Buffer; type: string }>('assets')
    .where({ sha256 })
    .whereLike('type', 'audio/%')
    .first('content');
  return row?.content ?? null;
}
