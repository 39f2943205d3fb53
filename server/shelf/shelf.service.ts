import { encodeEntity, find, randomId, shotOf, type Id, type ShotDocument } from '@tallow/core/document';
import { keptAlone, shelfFacts, type ShelfKind } from '@tallow/core/shelf';
import { placedElements } from '@tallow/core/timing';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { SHELF_ID } from '../db/migrations.ts';
import { Problem } from '../http/problem.ts';
import { ShotsService, type ShotSummary } from '../shots/shots.service.ts';
import type { KeepRequest, ShelfTold } from './requests.ts';

interface Row {
  shot_id: Id;
  kind: ShelfKind;
  tags: string[];
  note: string;
  time: 'open' | 'cycle' | 'one-shot';
  colours: string[];
  shipped: boolean;
}

/** An effect on the shelf: the small shot it is kept in, and what the shelf says of it. */
export type ShelfItem = ShotSummary & Omit<Row, 'shot_id'>;

/** The shelf: elements kept from any shot, to be put into others. */
@Injectable()
export class ShelfService {
  constructor(
    @Inject(DATABASE) private readonly database: Knex,
    private readonly shots: ShotsService,
  ) {}

  async list(): Promise<ShelfItem[]> {
    const rows = new Map((await this.database<Row>('shelf')).map((row) => [row.shot_id, row]));
    return (await this.shots.onShelf()).flatMap((shot) => {
      const row = rows.get(shot.id);
      return row ? [itemOf(shot, row)] : [];
    });
  }

  async one(id: Id): Promise<ShelfItem> {
    const row = await this.database<Row>('shelf').where({ shot_id: id }).first();
    if (!row) throw Problem.missing('This effect');
    return itemOf(await this.shots.one(id), row);
  }

  /** Keeps an element; asking again with the same id gives what was kept. */
  async keep({ id, shotId, elementId, ...told }: KeepRequest): Promise<ShelfItem> {
    const known = await this.database<Row>('shelf').where({ shot_id: id }).first();
    if (known) return this.one(id);
    const { doc } = await this.shots.document(shotId);
    const element = find(doc, 'element', elementId);
    const alone = element && keptAlone(doc, elementId, { id, name: told.name ?? element.name }, randomId);
    if (!alone) throw Problem.refused('elementId', 'names no element of that shot.');
    return this.put(alone, told, false);
  }

  /** Puts a shot of one element on the shelf, unless it stands there. @param shipped whether it came with Tallow. */
  async put(doc: ShotDocument, { kind, tags, note }: ShelfTold, shipped: boolean): Promise<ShelfItem> {
    await this.shots.insert(doc, SHELF_ID);
    await this.database('shelf')
      .insert({
        shot_id: doc.shotId,
        kind: kind ?? 'other',
        tags: tags ?? [],
        note: note ?? '',
        shipped,
        ...shelfFacts(doc),
      })
      .onConflict('shot_id')
      .ignore();
    return this.one(doc.shotId);
  }

  async tell(id: Id, { name, ...told }: ShelfTold): Promise<ShelfItem> {
    const { name: before } = await this.one(id);
    if (name !== undefined && name !== before) await this.shots.rename(id, name);
    const changes = Object.fromEntries(Object.entries(told).filter(([, value]) => value !== undefined));
    if (Object.keys(changes).length > 0) await this.database('shelf').where({ shot_id: id }).update(changes);
    return this.one(id);
  }

  /** All that an effect is made of, to be put into a shot. */
  async parts(id: Id) {
    await this.one(id);
    const { doc, revision } = await this.shots.document(id);
    const { width, height } = shotOf(doc);
    return {
      shotId: id,
      roots: placedElements(doc)
        .slice(0, 1)
        .map(({ element }) => element.id),
      entities: Object.values(doc.entities)
        .filter(({ kind }) => kind !== 'shot' && kind !== 'plane')
        .map(encodeEntity),
      made: { width, height },
      from: { shelfId: id, revision },
    };
  }

  /** Takes an effect off the shelf, or puts it back. */
  async setDeleted(id: Id, deleted: boolean): Promise<void> {
    const row = await this.database<Row>('shelf').where({ shot_id: id }).first();
    if (!row) throw Problem.missing('This effect');
    await this.shots.setDeleted(id, deleted);
  }
}

function itemOf(shot: ShotSummary, row: Row): ShelfItem {
  const { kind, tags, note, time, colours, shipped } = row;
  return { ...shot, kind, tags, note, time, colours, shipped };
}
