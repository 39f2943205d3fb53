import { isId, type Id } from '@tallow/core/document';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  Put,
  Query,
  Req,
} from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { Problem } from '../http/problem.ts';
import { ChangesService } from './changes.service.ts';
import { OpenShots } from './open-shots.ts';
import { IdPipe } from '../http/id.pipe.ts';
import { PartsService } from './parts.service.ts';
import { ProductionsService } from './productions.service.ts';
import {
  DuplicateRequest,
  NewProductionRequest,
  NewShotRequest,
  PartRequest,
  RenameRequest,
  SaveRequest,
} from './requests.ts';
import { SavesService } from './saves.service.ts';
import { ShotsService } from './shots.service.ts';

function revisionOf(field: string, text: string): number {
  const revision = Number(text);
  if (text === '' || !Number.isInteger(revision) || revision < 0 || revision > 2147483647)
    throw Problem.refused(field, 'must be a revision.');
  return revision;
}

@ApiTags('productions')
@Controller('productions')
export class ProductionsController {
  constructor(private readonly productions: ProductionsService) {}

  @Get() list() {
    return this.productions.list();
  }

  @Post() create(@Body() { id, name }: NewProductionRequest) {
    return this.productions.create({ id, name });
  }

  @Patch(':id') rename(@Param('id', IdPipe) id: Id, @Body() { name }: RenameRequest) {
    return this.productions.rename(id, name);
  }

  @Delete(':id') @HttpCode(204) remove(@Param('id', IdPipe) id: Id) {
    return this.productions.setDeleted(id, true);
  }

  @Post(':id/restore') @HttpCode(204) restore(@Param('id', IdPipe) id: Id) {
    return this.productions.setDeleted(id, false);
  }
}

@ApiTags('shots')
@Controller('shots')
export class ShotsController {
  constructor(
    private readonly shots: ShotsService,
    private readonly saves: SavesService,
    private readonly changes: ChangesService,
    private readonly parts: PartsService,
    private readonly open: OpenShots,
  ) {}

  @Get() list() {
    return this.shots.list();
  }

  @Post() create(@Body() request: NewShotRequest) {
    return this.shots.create(request);
  }

  @Get(':id') structure(@Param('id', IdPipe) id: Id) {
    return this.shots.structure(id);
  }

  @Patch(':id') rename(@Param('id', IdPipe) id: Id, @Body() { name }: RenameRequest) {
    return this.shots.rename(id, name);
  }

  @Post(':id/duplicate') duplicate(@Param('id', IdPipe) id: Id, @Body() request: DuplicateRequest) {
    return this.shots.duplicate(id, request.id);
  }

  @Delete(':id') @HttpCode(204) remove(@Param('id', IdPipe) id: Id) {
    return this.shots.setDeleted(id, true);
  }

  @Post(':id/restore') @HttpCode(204) restore(@Param('id', IdPipe) id: Id) {
    return this.shots.setDeleted(id, false);
  }

  @Get(':id/drawings') async drawings(@Param('id', IdPipe) id: Id, @Query('ids') ids = '') {
    const list = ids.split(',').filter((each) => each !== '');
    if (list.length > 100 || !list.every(isId))
      throw Problem.refused('ids', 'must be up to 100 UUIDs with commas between.');
    await this.shots.one(id);
    return this.shots.drawings(id, list);
  }

  @Get(':id/changes') changed(
    @Param('id', IdPipe) id: Id,
    @Query('since') since = '',
    @Query('upTo') upTo = '',
    @Query('after') after = '',
  ) {
    this.open.see(id);
    const last = upTo === '' ? null : revisionOf('upTo', upTo);
    return this.changes.page(id, revisionOf('since', since), last, after === '' ? null : after);
  }

  @Post(':id/saves') @HttpCode(200) save(@Param('id', IdPipe) id: Id, @Body() request: SaveRequest) {
    return this.saves.save(id, request);
  }

  @Put(':id/saves/:saveId/parts/:n') @HttpCode(204) async part(
    @Param('id', IdPipe) id: Id,
    @Param('saveId', IdPipe) saveId: Id,
    @Param('n', ParseIntPipe) n: number,
    @Query('sha256') sha256: string,
    @Body() part: PartRequest,
    @Req() request: Request & { contentHash?: string },
  ) {
    if (n < 0 || n >= 10_000) throw Problem.refused('n', 'must be from 0 to 9999.');
    if (sha256 !== request.contentHash) throw Problem.refused('sha256', 'is not that of what was sent.');
    await this.parts.stage(id, saveId, n, part, sha256);
  }

  @Get(':id/tabs/:tab') async tab(@Param('id', IdPipe) id: Id, @Param('tab', IdPipe) tab: Id) {
    return { seq: await this.saves.seqOf(id, tab) };
  }
}
