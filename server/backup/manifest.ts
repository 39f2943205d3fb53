/** What stands beside a dump: what it holds, so that it can be checked, and which pictures and sounds belong to it. */
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsISO8601,
  IsObject,
  IsString,
  Matches,
  Min,
  validateSync,
} from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import type { Fingerprint } from './fingerprints.ts';
import { filesOf } from './place.ts';

export const FORMAT = 1;

/** A row of the table of assets without its content. */
export type AssetRow = Readonly<Record<string, unknown>> & { readonly sha256: string };

export class Manifest {
  @IsInt() @Min(1) format: number;
  @IsISO8601() madeAt: string;
  /** The changes to the tables that the database had. */
  @IsArray() @IsString({ each: true }) migrations: string[];
  /** SHA-256 of the dump. */
  @Matches(/^[0-9a-f]{64}$/) dump: string;
  @IsObject() tables: Record<string, Fingerprint>;
  @IsArray() @ArrayMaxSize(10_000_000) @IsObject({ each: true }) assets: AssetRow[];
}

/** SHA-256 of a file, in hex. */
export async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/** Reads what stands beside a dump. @throws in words when it cannot be read, or is newer than this. */
export async function readBackupManifest(file: string): Promise<Manifest> {
  const { manifest } = filesOf(file);
  const text = await readFile(manifest, 'utf8').catch(() => {
    throw new Error(`${manifest} is not there; a backup is the dump, this file and the folder assets beside it.`);
  });
  let plain: unknown;
  try {
    plain = JSON.parse(text);
  } catch {
    throw new Error(`${manifest} is damaged: it is not JSON.`);
  }
  if (typeof plain !== 'object' || plain === null) throw new Error(`${manifest} is damaged: it is no object.`);
  const read = plainToInstance(Manifest, plain);
  const [problem] = validateSync(read);
  if (problem) throw new Error(`${manifest} is damaged: ${problem.property} is not what it should be.`);
  if (read.format > FORMAT) throw new Error(`${manifest} is of a newer Tallow (format ${read.format}).`);
  for (const { sha256 } of read.assets)
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw new Error(`${manifest} is damaged: an asset has no hash.`);
  return read;
}
