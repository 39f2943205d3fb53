import {
  encodeEntity,
  findAll,
  randomId,
  readEntity,
  shotOf,
  type Entity,
  type Id,
  type ShotDocument,
} from '@tallow/core/document';
import { setShot, takeParts } from '@tallow/core/edit';
import { timedLayers } from '@tallow/core/timing';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { unlink } from 'node:fs/promises';
import { versionLoopPath } from '../cards/loop-job.ts';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';
import { SavesService } from '../shots/saves.service.ts';
import { ShotsService, type ShotSummary } from '../shots/shots.service.ts';
import { roomOf, type Room } from './thinning.ts';

/** By hand, or by itself before a shot is taken away or put back. */
export type Made = 'hand' | 'export' | 'restore' | 'import';

interface Row {
  id: Id;
  shot_id: Id;
  revision: number;
  name: string;
  made: Made;
  created_at: Date;
}

export interface Version {
  readonly id: Id;
  readonly shotId: Id;
  readonly revision: number;
  readonly name: string;
  readonly made: Made;
  readonly createdAt: string;
  /** Drawings that have changed since, or come or gone. */
  readonly changed: number;
}

interface Body {
  id: Id;
  kind: string;
  revision: number;
  deleted: boolean;
  body: unknown;
}

/** Stages of a shot that have a name: looked at, gone back to, gone on from in a new shot. Every revision is kept; a version points at one. */
@Injectable()
export class VersionsService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly shots: ShotsService,
    private readonly saves: SavesService,
  ) {}

  async list(shotId: Id): Promise<Version[]> {
    await this.shots.one(shotId);
    const rows = await this.database<Row>('versions').where({ shot_id: shotId }).orderBy('created_at', 'desc');
    return Promise.all(rows.map((row) => this.told(row)));
  }

  private async told(row: Row): Promise<Version> {
    const counted = await this.database('entities')
      .where({ shot_id: row.shot_id, kind: 'drawing' })
      .where('revision', '>', row.revision)
      .count<{ count: string }[]>('id as count');
    return {
      id: row.id,
      shotId: row.shot_id,
      revision: row.revision,
      name: row.name,
      made: row.made,
      createdAt: row.created_at.toISOString(),
      changed: Number(counted[0]?.count ?? 0),
    };
  }

  async one(id: Id): Promise<Version> {
    return this.told(await this.row(id));
  }

  private async row(id: Id): Promise<Row> {
    const row = await this.database<Row>('versions').where({ id }).first();
    if (!row) throw Problem.missing('This version');
    return row;
  }

  /** Names the shot as it is now; asking again with the same id gives what was named. */
  async name(shotId: Id, { id, name }: { id: Id; name: string }, made: Made = 'hand'): Promise<Version> {
    const { revision } = await this.shots.one(shotId);
    await this.database('versions').insert({ id, shot_id: shotId, revision, name, made }).onConflict('id').ignore();
    const row = await this.row(id);
    if (row.shot_id !== shotId) throw Problem.refused('id', 'is taken.');
    return this.told(row);
  }

  /** Names the shot as it is now by itself, unless this revision has a name. */
  async before(shotId: Id, made: Exclude<Made, 'hand'>, name: string): Promise<void> {
    const { revision } = await this.shots.one(shotId);
    const known = await this.database<Row>('versions').where({ shot_id: shotId, revision }).first();
    if (!known) await this.name(shotId, { id: randomId(), name }, made);
  }

  async rename(id: Id, name: string): Promise<Version> {
    await this.database('versions').where({ id }).update({ name });
    return this.told(await this.row(id));
  }

  /** Lets the name go; what it named is kept as all revisions are. */
  async remove(id: Id): Promise<void> {
    const gone = await this.database('versions').where({ id }).delete();
    if (gone === 0) throw Problem.missing('This version');
    await unlink(versionLoopPath(id)).catch(() => undefined);
  }

  /** Bodies of a shot as they were at a revision. */
  private async bodiesAt(shotId: Id, revision: number): Promise<Body[]> {
    const { rows } = await this.database.raw<{ rows: Body[] }>(
      `select distinct on (id) id, kind, revision, deleted, body from (
         select id, kind, revision, deleted, body from entities where shot_id = :shotId and revision <= :revision
         union all
         select older.id, entities.kind, older.revision, older.deleted, older.body
           from older_bodies as older join entities on entities.id = older.id
           where older.shot_id = :shotId and older.revision <= :revision
       ) as bodies order by id, revision desc`,
      { shotId, revision },
    );
    return rows.filter(({ deleted }) => !deleted);
  }

  /** The shot as it was. */
  async document(id: Id): Promise<ShotDocument> {
    const { shot_id: shotId, revision } = await this.row(id);
    const entities: Record<Id, Entity> = {};
    for (const { body } of await this.bodiesAt(shotId, revision)) {
      const read = readEntity(body);
      if ('problems' in read)
        throw new Problem(409, `This version cannot be read: ${read.problems[0]?.field} ${read.problems[0]?.message}`);
      entities[read.ok.id] = read.ok;
    }
    return { shotId, entities };
  }

  /** How much room the shot takes, with all that is kept of it. */
  async room(shotId: Id): Promise<Room> {
    await this.shots.one(shotId);
    return roomOf(this.database, shotId);
  }

  /** What there is in it: elements with their layers, as they lie. */
  async contents(id: Id) {
    const doc = await this.document(id);
    return findAll(doc, 'element', shotOf(doc).elements).map((element) => ({
      id: element.id,
      name: element.name,
      layers: timedLayers(doc, element).map(({ layer }) => ({ id: layer.id, name: layer.name })),
    }));
  }

  /** An element or a layer of it with all that it is made of, to be put into the shot as it is now. */
  async parts(id: Id, root: Id) {
    const clip = takeParts(await this.document(id), [root]);
    if (clip.roots.length === 0) throw Problem.refused('of', 'names nothing of that version.');
    return { ...clip, entities: clip.entities.map(encodeEntity) };
  }

  /** Makes the shot as it was, as a new revision: what came after stays among the versions and revisions. */
  async restore(id: Id): Promise<ShotSummary> {
    const { shot_id: shotId, revision, name } = await this.row(id);
    await this.before(shotId, 'restore', `Before going back to “${name}”`);
    const then = new Map((await this.bodiesAt(shotId, revision)).map((body) => [body.id, body]));
    const now = await this.database<Body & { shot_id: Id }>('entities')
      .where({ shot_id: shotId })
      .select('id', 'revision', 'deleted');
    const known = new Map(now.map((each) => [each.id, each]));
    const puts = [...then.values()].flatMap(({ id: each, kind, revision: at, body }) => {
      const current = known.get(each);
      if (current && !current.deleted && current.revision === at) return [];
      return [{ id: each, kind, body: body as Record<string, unknown>, restore: current?.deleted === true }];
    });
    const deletes = now.filter((each) => !each.deleted && !then.has(each.id)).map((each) => each.id);
    const { revision: baseRevision } = await this.shots.one(shotId);
    if (puts.length + deletes.length > 0)
      await this.saves.save(shotId, { saveId: randomId(), baseRevision, puts, deletes });
    return this.shots.one(shotId);
  }

  /** A new shot that goes on from it, beside the one it is of. */
  async branch(id: Id, newShotId: Id): Promise<ShotSummary> {
    const row = await this.row(id);
    const { name } = await this.shots.one(row.shot_id);
    const copy = await this.shots.copyOf(await this.document(id), newShotId);
    return this.shots.insertBeside(row.shot_id, setShot(copy, { name: `${name}, ${row.name}`.slice(0, 200) }));
  }
}
