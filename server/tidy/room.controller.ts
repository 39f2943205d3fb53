import { Controller, Get, Inject } from '@nestjs/common';
import type { Knex } from 'knex';
import { DATABASE } from '../db/database.ts';
import { roomInAll } from './room.ts';

@Controller('room')
export class RoomController {
  constructor(@Inject(DATABASE) private readonly database: Knex) {}

  /** How much room everything takes in all. */
  @Get() room() {
    return roomInAll(this.database);
  }
}
