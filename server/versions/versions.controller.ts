import type { Id } from '@tallow/core/document';
import { Body, Controller, Delete, Get, Header, HttpCode, Param, Patch, Post, Query, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { existsSync } from 'node:fs';
import { versionLoopPath } from '../cards/loop-job.ts';
import { PicturesService } from '../cards/pictures.service.ts';
import { IdPipe } from '../http/id.pipe.ts';
import { Problem } from '../http/problem.ts';
import { showLoop } from '../http/send-file.ts';
import { LOOP_QUEUE } from '../queue/queue.ts';
import { QueueService } from '../queue/queue.service.ts';
import { DuplicateRequest, NewProductionRequest, RenameRequest } from '../shots/requests.ts';
import { VersionsService } from './versions.service.ts';

@ApiTags('versions')
@Controller()
export class VersionsController {
  constructor(
    private readonly versions: VersionsService,
    private readonly pictures: PicturesService,
    private readonly queue: QueueService,
  ) {}

  @Get('shots/:id/versions') list(@Param('id', IdPipe) id: Id) {
    return this.versions.list(id);
  }

  @Get('shots/:id/room') room(@Param('id', IdPipe) id: Id) {
    return this.versions.room(id);
  }

  @Post('shots/:id/versions') name(@Param('id', IdPipe) id: Id, @Body() named: NewProductionRequest) {
    return this.versions.name(id, named);
  }

  /** Names the shot as it is by itself, before something comes in; a revision that has a name keeps it. */
  @Post('shots/:id/versions/before') @HttpCode(204) before(
    @Param('id', IdPipe) id: Id,
    @Body() { name }: RenameRequest,
  ) {
    return this.versions.before(id, 'import', name);
  }

  @Patch('versions/:id') rename(@Param('id', IdPipe) id: Id, @Body() { name }: RenameRequest) {
    return this.versions.rename(id, name);
  }

  @Delete('versions/:id') @HttpCode(204) remove(@Param('id', IdPipe) id: Id) {
    return this.versions.remove(id);
  }

  @Post('versions/:id/restore') @HttpCode(200) restore(@Param('id', IdPipe) id: Id) {
    return this.versions.restore(id);
  }

  @Post('versions/:id/branch') branch(@Param('id', IdPipe) id: Id, @Body() request: DuplicateRequest) {
    return this.versions.branch(id, request.id);
  }

  @Get('versions/:id/contents') contents(@Param('id', IdPipe) id: Id) {
    return this.versions.contents(id);
  }

  @Get('versions/:id/parts') parts(@Param('id', IdPipe) id: Id, @Query('of', IdPipe) of: Id) {
    return this.versions.parts(id, of);
  }

  /** Its loop, once it is made: asking has it made. */
  @Get('versions/:id/loop.webp') async loop(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    const path = versionLoopPath(id);
    if (!existsSync(path)) {
      await this.versions.one(id);
      await this.queue.send(LOOP_QUEUE, { versionId: id }, id, true);
      throw new Problem(404, 'This loop is being made.');
    }
    await showLoop(response, path, 'The loop of this version');
  }

  @Get('versions/:id/picture.png')
  @Header('Content-Type', 'image/png')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    response.send(await this.pictures.of(await this.versions.document(id)));
  }
}
