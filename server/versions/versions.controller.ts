import type { Id } from '@tallow/core/document';
import { Body, Controller, Delete, Get, Header, HttpCode, Param, Patch, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { PicturesService } from '../cards/pictures.service.ts';
import { IdPipe } from '../http/id.pipe.ts';
import { DuplicateRequest, NewProductionRequest, RenameRequest } from '../shots/requests.ts';
import { VersionsService } from './versions.service.ts';

@ApiTags('versions')
@Controller()
export class VersionsController {
  constructor(
    private readonly versions: VersionsService,
    private readonly pictures: PicturesService,
  ) {}

  @Get('shots/:id/versions') list(@Param('id', IdPipe) id: Id) {
    return this.versions.list(id);
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

  @Get('versions/:id/picture.png')
  @Header('Content-Type', 'image/png')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    response.send(await this.pictures.of(await this.versions.document(id)));
  }
}
