import type { Id } from '@tallow/core/document';
import { Inject, Injectable } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { SHELF_ID } from '../db/migrations.ts';
import { Problem } from '../http/problem.ts';

export interface Production {
  readonly id: Id;
  readonly name: string;
}

/** Productions: folders of shots. */
@Injectable()
export class ProductionsService {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  async list(): Promise<Production[]> {
    return this.database<Production>('productions')
      .whereNull('deleted_at')
      .whereNot({ id: SHELF_ID })
      .orderBy('created_at')
      .select('id', 'name');
  }

  /** Makes a production; asking again with the same id changes nothing. */
  async create(production: Production): Promise<Production> {
    await this.database('productions').insert(production).onConflict('id').ignore();
    const made = await this.database<Production>('productions').where({ id: production.id }).first();
    return { id: production.id, name: made?.name ?? production.name };
  }

  async rename(id: Id, name: string): Promise<Production> {
    const changed = await this.database('productions').where({ id }).whereNot({ id: SHELF_ID }).update({ name });
    if (changed === 0) throw Problem.missing('This production');
    return { id, name };
  }

  async setDeleted(id: Id, deleted: boolean): Promise<void> {
    const changed = await this.database('productions')
      .where({ id })
      .whereNot({ id: SHELF_ID })
      .update({ deleted_at: deleted ? this.database.fn.now() : null });
    if (changed === 0) throw Problem.missing('This production');
  }
}
