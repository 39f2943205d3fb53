/** What the card of a shot shows: a picture, and its loop once there is one. */
import type { Id } from '@tallow/core/document';
import { Controller, Get, Header, Param, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { IdPipe } from '../http/id.pipe.ts';
import { Problem } from '../http/problem.ts';
import { showLoop } from '../http/send-file.ts';
import { ShotsService } from '../shots/shots.service.ts';
import { loopPath } from './loop-job.ts';
import { PicturesService } from './pictures.service.ts';

@ApiTags('shots')
@Controller('shots')
export class CardsController {
  constructor(
    private readonly shots: ShotsService,
    private readonly pictures: PicturesService,
  ) {}

  @Get(':id/loop.webp') async loop(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    const { loop } = await this.shots.one(id);
    if (!loop) throw Problem.missing('The loop of this shot');
    await showLoop(response, loopPath(id), 'The loop of this shot');
  }

  @Get(':id/picture.png')
  @Header('Content-Type', 'image/png')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async picture(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    response.send(await this.pictures.card(id));
  }
}
