import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';

/** The production in which the shots lie that stand on the shelf. */
export const SHELF_ID = '7a110000-0000-4000-8000-000000000002';

/** The database's history, oldest first. A migration that has been released is never changed. */
const migrations: Record<string, Knex.Migration> = {
  '001-documents': {
    async up(knex) {
      await knex.schema.createTable('productions', (t) => {
        t.uuid('id').primary();
        t.text('name').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
        t.timestamp('deleted_at');
      });
      await knex.schema.createTable('shots', (t) => {
        t.uuid('id').primary();
        t.uuid('production_id').notNullable().references('productions.id');
        t.integer('revision').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
        t.timestamp('updated_at').notNullable().defaultTo(knex.fn.now());
        t.timestamp('deleted_at');
      });
      await knex.schema.createTable('entities', (t) => {
        t.uuid('id').primary();
        t.uuid('shot_id').notNullable().references('shots.id');
        t.text('kind').notNullable();
        t.integer('revision').notNullable();
        t.boolean('deleted').notNullable().defaultTo(false);
        t.jsonb('body').notNullable();
        t.index(['shot_id', 'revision']);
      });
      await knex.schema.createTable('older_bodies', (t) => {
        t.uuid('id').notNullable();
        t.integer('revision').notNullable();
        t.uuid('shot_id').notNullable().references('shots.id');
        t.boolean('deleted').notNullable();
        t.jsonb('body').notNullable();
        t.primary(['id', 'revision']);
      });
      await knex.schema.createTable('saves', (t) => {
        t.uuid('save_id').primary();
        t.uuid('shot_id').notNullable().references('shots.id');
        t.integer('base_revision').notNullable();
        t.integer('revision').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
      });
      await knex.schema.createTable('facts', (t) => {
        t.text('name').primary();
        t.jsonb('value').notNullable();
      });
    },
    async down(knex) {
      for (const table of ['facts', 'saves', 'older_bodies', 'entities', 'shots', 'productions'])
        await knex.schema.dropTable(table);
    },
  },
  '002-exports': {
    async up(knex) {
      await knex.schema.createTable('exports', (t) => {
        t.uuid('id').primary();
        t.uuid('shot_id').notNullable().references('shots.id');
        t.text('state').notNullable();
        t.boolean('background').notNullable();
        t.integer('frames').notNullable();
        t.integer('done').notNullable().defaultTo(0);
        t.text('file_name').notNullable();
        t.bigInteger('bytes');
        t.text('trouble');
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
        t.timestamp('heard_at').notNullable().defaultTo(knex.fn.now());
        t.index(['shot_id', 'created_at']);
      });
    },
    async down(knex) {
      await knex.schema.dropTable('exports');
    },
  },
  '003-export-settings': {
    async up(knex) {
      await knex.schema.alterTable('exports', (t) => {
        t.jsonb('settings').notNullable().defaultTo('{}');
      });
      await knex.raw(
        `update exports set settings = jsonb_build_object('format', 'png', 'parts', 'picture',
          'background', background, 'from', 0, 'to', frames, 'scale', 1, 'pattern', '{shot}-{frame}', 'sheet', false)`,
      );
      await knex.schema.alterTable('exports', (t) => {
        t.dropColumn('background');
      });
    },
    async down(knex) {
      await knex.schema.alterTable('exports', (t) => {
        t.boolean('background').notNullable().defaultTo(false);
        t.dropColumn('settings');
      });
    },
  },
  '004-loops': {
    async up(knex) {
      await knex.schema.createTable('loops', (t) => {
        t.uuid('shot_id').primary().references('shots.id');
        t.integer('revision').notNullable();
        t.boolean('flashes').notNullable();
        t.boolean('made').notNullable();
      });
    },
    async down(knex) {
      await knex.schema.dropTable('loops');
    },
  },
  '005-assets': {
    async up(knex) {
      await knex.schema.createTable('assets', (t) => {
        t.text('sha256').primary();
        t.text('type').notNullable();
        t.integer('width').notNullable();
        t.integer('height').notNullable();
        t.binary('content').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
      });
    },
    async down(knex) {
      await knex.schema.dropTable('assets');
    },
  },
  '006-saving': {
    async up(knex) {
      await knex.schema.createTable('save_parts', (t) => {
        t.uuid('save_id').notNullable();
        t.integer('n').notNullable();
        t.uuid('shot_id').notNullable().references('shots.id');
        t.text('sha256').notNullable();
        t.binary('content').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
        t.primary(['save_id', 'n']);
      });
      await knex.schema.alterTable('saves', (t) => {
        t.uuid('tab');
        t.bigInteger('seq');
        t.index(['shot_id', 'tab']);
      });
      await knex.schema.alterTable('exports', (t) => {
        t.integer('tries').notNullable().defaultTo(0);
        t.timestamp('try_at');
      });
      // Another one after a restore, so that open pages notice it.
      await knex('facts').insert({ name: 'epoch', value: JSON.stringify(randomUUID()) });
    },
    async down(knex) {
      await knex('facts').where({ name: 'epoch' }).delete();
      await knex.schema.alterTable('exports', (t) => {
        t.dropColumns('tries', 'try_at');
      });
      await knex.schema.alterTable('saves', (t) => {
        t.dropColumns('tab', 'seq');
      });
      await knex.schema.dropTable('save_parts');
    },
  },
  '007-footage': {
    async up(knex) {
      await knex.schema.createTable('footage', (t) => {
        t.uuid('id').primary();
        t.text('name').notNullable();
        t.text('state').notNullable();
        t.integer('rate');
        t.integer('frames').notNullable().defaultTo(0);
        t.integer('done').notNullable().defaultTo(0);
        t.integer('width').notNullable().defaultTo(0);
        t.integer('height').notNullable().defaultTo(0);
        t.text('told').notNullable().defaultTo('');
        t.jsonb('assets').notNullable().defaultTo('[]');
        t.text('trouble');
        t.timestamp('heard_at').notNullable().defaultTo(knex.fn.now());
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
      });
    },
    async down(knex) {
      await knex.schema.dropTable('footage');
    },
  },
  '008-sounds': {
    async up(knex) {
      // A sound has no size; a picture takes no time.
      await knex.schema.alterTable('assets', (t) => {
        t.setNullable('width');
        t.setNullable('height');
        t.double('seconds');
      });
    },
    async down(knex) {
      await knex('assets').whereNotNull('seconds').delete();
      await knex.schema.alterTable('assets', (t) => {
        t.dropColumn('seconds');
        t.dropNullable('width');
        t.dropNullable('height');
      });
    },
  },
  '009-shelf': {
    async up(knex) {
      // What stands on the shelf are small shots, in a production that is not listed.
      await knex('productions').insert({ id: SHELF_ID, name: 'Shelf' }).onConflict('id').ignore();
      await knex.schema.createTable('shelf', (t) => {
        t.uuid('shot_id').primary().references('shots.id');
        t.text('kind').notNullable();
        t.specificType('tags', 'text[]').notNullable().defaultTo('{}');
        t.text('note').notNullable().defaultTo('');
        t.text('time').notNullable();
        t.specificType('colours', 'text[]').notNullable().defaultTo('{}');
        t.boolean('shipped').notNullable().defaultTo(false);
      });
    },
    async down(knex) {
      await knex.schema.dropTable('shelf');
    },
  },
  '010-versions': {
    async up(knex) {
      await knex.schema.createTable('versions', (t) => {
        t.uuid('id').primary();
        t.uuid('shot_id').notNullable().references('shots.id');
        t.integer('revision').notNullable();
        t.text('name').notNullable();
        // Why it was made: by hand, or by itself before something.
        t.text('made').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
        t.index(['shot_id', 'created_at']);
      });
    },
    async down(knex) {
      await knex.schema.dropTable('versions');
    },
  },
  '011-archives': {
    async up(knex) {
      await knex.schema.createTable('archives', (t) => {
        t.uuid('id').primary();
        // Out: written here. In: handed in and read.
        t.text('direction').notNullable();
        t.text('scope').notNullable();
        t.uuid('of');
        t.text('state').notNullable();
        t.text('file_name').notNullable();
        t.integer('total').notNullable().defaultTo(0);
        t.integer('done').notNullable().defaultTo(0);
        t.bigInteger('bytes');
        t.jsonb('told').notNullable().defaultTo('{}');
        t.text('trouble');
        t.timestamp('heard_at').notNullable().defaultTo(knex.fn.now());
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
      });
    },
    async down(knex) {
      await knex.schema.dropTable('archives');
    },
  },
  '012-kept': {
    async up(knex) {
      await knex.schema.createTable('kept', (t) => {
        t.uuid('id').primary();
        t.text('kind').notNullable();
        // What it is for: names are unique within it.
        t.text('of').notNullable();
        t.text('name').notNullable();
        t.jsonb('what').notNullable();
        t.timestamp('created_at').notNullable().defaultTo(knex.fn.now());
        t.unique(['kind', 'of', 'name']);
      });
    },
    async down(knex) {
      await knex.schema.dropTable('kept');
    },
  },
};

/** Hands the migrations to Knex without files on disk, so that they travel inside the built server. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(migrations)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(migrations[name]!),
};
