import type { Id } from '@tallow/core/document';
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { IdPipe } from '../http/id.pipe.ts';
import { KeepRequest, ShelfTold } from './requests.ts';
import { ShelfService } from './shelf.service.ts';

@ApiTags('shelf')
@Controller('shelf')
export class ShelfController {
  constructor(private readonly shelf: ShelfService) {}

  @Get() list() {
    return this.shelf.list();
  }

  @Post() keep(@Body() request: KeepRequest) {
    return this.shelf.keep(request);
  }

  @Patch(':id') tell(@Param('id', IdPipe) id: Id, @Body() told: ShelfTold) {
    return this.shelf.tell(id, told);
  }

  @Get(':id/parts') parts(@Param('id', IdPipe) id: Id) {
    return this.shelf.parts(id);
  }

  @Delete(':id') @HttpCode(204) remove(@Param('id', IdPipe) id: Id) {
    return this.shelf.setDeleted(id, true);
  }

  @Post(':id/restore') @HttpCode(204) restore(@Param('id', IdPipe) id: Id) {
    return this.shelf.setDeleted(id, false);
  }
}
