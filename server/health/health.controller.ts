import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { Problem } from '../http/problem.ts';

export const VERSION = '0.1.0';

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  @Get() async health() {
    try {
      await this.database.raw('select 1');
    } catch {
      throw new Problem(503, 'The database cannot be reached.', [], { database: 'lost', version: VERSION });
    }
    return { status: 'ok', database: 'ok', version: VERSION };
  }
}
