/** The open archive: what lies where in its zip, and the manifest that says what it holds (docs/archive.md). */
import { z } from 'zod';
import { entityKinds, isAsset, isId, KINDS, textProblem, type AssetId, type Id } from '../document/index.ts';

/** The version of the archive as a whole; bodies have versions of their own. */
const ARCHIVE_VERSION = 2;
export const ARCHIVE_ENDING = 'tallow.zip';
export const MANIFEST = 'manifest.json';

const FORMAT = 'tallow-archive';

/** Where things lie. Columns are the numbers of a drawing, beside its JSON. */
export const archivePath = {
  entities: (shotId: Id): string => `shots/${shotId}/entities.json`,
  drawing: (shotId: Id, id: Id): string => `shots/${shotId}/drawings/${id}.json`,
  older: (shotId: Id, id: Id, revision: number): string => `shots/${shotId}/older/${id}.${revision}.json`,
  columns: (path: string): string => path.replace(/json$/, 'f32'),
  preview: (shotId: Id): string => `shots/${shotId}/preview.png`,
  asset: (sha256: AssetId): string => `assets/${sha256}`,
} as const;

const id = z.custom<Id>(isId, 'must be a UUID in lower case');
const name = z.custom<string>((value) => textProblem(value, 'name') === null, 'must be a name');
const count = z.int().min(0).max(10_000_000);
const revision = z.int().min(1).max(2_000_000_000);
const kind = z.enum(entityKinds() as [string, ...string[]]);
const size = z.int().min(1).max(100_000).nullable();

const version = z.strictObject({
  id,
  name,
  made: z.enum(['hand', 'export', 'restore', 'import']),
  revision,
  createdAt: z.iso.datetime(),
});
const shot = z.strictObject({
  id,
  productionId: id,
  name,
  revision,
  /** Bodies but for drawings, all in one file. */
  entities: count,
  drawings: z.array(id),
  /** Bodies that only named versions have. */
  older: z.array(z.strictObject({ id, kind, revision })),
  versions: z.array(version),
  /** Where it stands on the shelf. */
  shelf: z.strictObject({ kind: z.string(), tags: z.array(z.string()), note: z.string() }).nullable(),
});
const asset = z.strictObject({
  sha256: z.custom<AssetId>(isAsset, 'must be a SHA-256 in lower-case hex'),
  type: z.enum(['image/png', 'image/jpeg', 'image/webp', 'audio/flac']),
  width: size,
  height: size,
  seconds: z.number().min(0).max(100_000).nullable(),
  bytes: z.int().min(1),
});
const schema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.int(),
  tallow: z.string(),
  made: z.iso.datetime(),
  bodies: z.record(z.string(), z.int()),
  productions: z.array(z.strictObject({ id, name })),
  shots: z.array(shot),
  assets: z.array(asset),
  /** Settings of the shelf; from version 2 on. Each is checked by its kind where it comes in. */
  kept: z.array(z.strictObject({ kind: z.string(), name, what: z.record(z.string(), z.unknown()) })).default([]),
});

export type ArchiveManifest = z.infer<typeof schema>;
export type ArchivedShot = ArchiveManifest['shots'][number];
export type ArchivedAsset = ArchiveManifest['assets'][number];

/** A row of a body as it lies in an archive. */
export interface ArchivedRow {
  readonly revision: number;
  readonly deleted: boolean;
  readonly body: Record<string, unknown>;
}
export const archivedRow = z.strictObject({
  revision,
  deleted: z.boolean(),
  body: z.record(z.string(), z.unknown()),
}) satisfies z.ZodType<ArchivedRow>;

/** The text of a manifest. @param tallow the version of the application that writes it. @param made when, as an ISO date. */
export const manifestText = (
  what: Pick<ArchiveManifest, 'productions' | 'shots' | 'assets' | 'kept'>,
  tallow: string,
  made: string,
): string =>
  JSON.stringify({
    format: FORMAT,
    version: ARCHIVE_VERSION,
    tallow,
    made,
    bodies: Object.fromEntries(entityKinds().map((each) => [each, KINDS[each].version])),
    ...what,
  });

/** What of an archive is newer than what is known here, or null. */
function tooNew(json: unknown): string | null {
  const { version: own, tallow, bodies } = json as Partial<ArchiveManifest>;
  const needs = `It was made by Tallow ${typeof tallow === 'string' ? tallow.slice(0, 20) : 'of a later version'}: open it with that or a later one.`;
  if (typeof own === 'number' && own > ARCHIVE_VERSION)
    return `This archive is of version ${own}; up to ${ARCHIVE_VERSION} can be read here. ${needs}`;
  for (const [each, at] of Object.entries(bodies ?? {})) {
    const known = Object.hasOwn(KINDS, each) ? KINDS[each as keyof typeof KINDS].version : null;
    if (known === null)
      return `This archive holds things of a kind that is not known here: ${each.slice(0, 40)}. ${needs}`;
    if (at > known) return `This archive holds a ${each} of version ${at}; up to ${known} can be read here. ${needs}`;
  }
  return null;
}

/** Reads a manifest, or says what is wrong with it. */
export function readManifest(text: string): { ok: ArchiveManifest } | { problem: string } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { problem: `${MANIFEST} is no JSON.` };
  }
  if ((json as { format?: unknown } | null)?.format !== FORMAT) return { problem: 'This is no archive of Tallow.' };
  const newer = tooNew(json);
  if (newer) return { problem: newer };
  const read = schema.safeParse(json);
  if (!read.success) {
    const [issue] = read.error.issues;
    return { problem: `${MANIFEST}: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}.` };
  }
  const twice = doubled(read.data);
  return twice ? { problem: `${MANIFEST} names ${twice} twice.` } : { ok: read.data };
}

/** Something that a manifest names twice, or null. */
function doubled({ productions, shots, assets }: ArchiveManifest): string | null {
  const seen = new Set<string>();
  const names = [
    ...productions.map((each) => each.id),
    ...assets.map(({ sha256 }) => sha256),
    ...shots.flatMap((each) => [each.id, ...each.drawings, ...each.versions.map((version_) => version_.id)]),
    ...shots.flatMap((each) => each.older.map((older) => `${older.id}.${older.revision}`)),
  ];
  return names.find((each) => seen.size === seen.add(each).size) ?? null;
}
