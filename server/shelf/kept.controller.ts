import type { Id } from '@tallow/core/document';
import { Body, Controller, Delete, Get, HttpCode, Param, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { IdPipe } from '../http/id.pipe.ts';
import { KeptService } from './kept.service.ts';
import { KeptRequest } from './requests.ts';

@ApiTags('shelf')
@Controller('kept')
export class KeptController {
  constructor(private readonly kept: KeptService) {}

  @Get() list() {
    return this.kept.list();
  }

  @Put(':id') keep(@Param('id', IdPipe) id: Id, @Body() request: KeptRequest) {
    return this.kept.keep(id, request);
  }

  @Delete(':id') @HttpCode(204) forget(@Param('id', IdPipe) id: Id) {
    return this.kept.forget(id);
  }
}
