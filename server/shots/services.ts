/** The services of shots on a database, put together for programs that have no module: worker, demo, benchmarks. */
import type { Knex } from 'knex';
import { ChangesService } from './changes.service.ts';
import { PartsService } from './parts.service.ts';
import { SavesService } from './saves.service.ts';
import { ShotsService } from './shots.service.ts';

export function shotServices(database: Knex): { shots: ShotsService; saves: SavesService } {
  const changes = new ChangesService(database);
  const saves = new SavesService(database, new PartsService(database), changes);
  return { shots: new ShotsService(database, saves, changes), saves };
}
