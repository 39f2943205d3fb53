import { isId, type Id } from '@tallow/core/document';
import { Body, Controller, Delete, Get, Header, HttpCode, Param, Patch, Post, Query, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Problem } from '../http/problem.ts';
import { resolve } from 'node:path';
import { loopPath } from '../loops/loop-job.ts';
import { IdPipe } from './id.pipe.ts';
import { PicturesService } from './pictures.service.ts';
import { ProductionsService } from './productions.service.ts';
import { DuplicateRequest, NewProductionRequest, NewShotRequest, RenameRequest, SaveRequest } from './requests.ts';
import { SavesService } from './saves.service.ts';
import { ShotsService } from './shots.service.ts';

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
    private readonly pictures: PicturesService,
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

  @Get(':id/changes') async changes(@Param('id', IdPipe) id: Id, @Query('since') since = '') {
    const revision = Number(since);
    if (since === '' || !Number.isInteger(revision) || revision < 0 || revision > 2147483647)
      throw Problem.refused('since', 'must be a revision.');
    const shot = await this.shots.one(id);
    return { revision: shot.revision, changes: await this.saves.changesSince(id, revision, shot.revision) };
  }

  @Post(':id/saves') @HttpCode(200) save(@Param('id', IdPipe) id: Id, @Body() request: SaveRequest) {
    return this.saves.save(id, request);
  }

  @Get(':id/loop.webp') async loop(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    const { loop } = await this.shots.one(id);
    if (!loop) throw Problem.missing('The loop of this shot');
    await new Promise<void>((done, failed) => {
      const headers = { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=31536000, immutable' };
      response.sendFile(resolve(loopPath(id)), { dotfiles: 'allow', headers }, (error) => {
        if (!error || response.headersSent) done();
        else failed(Problem.missing('The loop of this shot'));
      });
    });
  }

  @Get(':id/picture.png')
  @Header('Content-Type', 'image/png')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    response.send(await this.pictures.card(id));
  }
}
