import type { Id } from '@tallow/core/document';
import { Controller, Get, HttpCode, Param, Post, Query, Req, Sse, type MessageEvent } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import type { Observable } from 'rxjs';
import { IdPipe } from '../http/id.pipe.ts';
import { Problem } from '../http/problem.ts';
import { watched } from '../http/watched.ts';
import { FootageService, type FootageRow } from './footage.service.ts';

const answer = ({ id, name, state, rate, frames, done, width, height, told, assets, trouble }: FootageRow) => ({
  id,
  name,
  state,
  rate,
  frames,
  done,
  width,
  height,
  told,
  assets,
  trouble,
});

/** Frames a second that are asked for; null for the footage's own. @throws where it is no rate of a shot. */
function rateOf(text: string): number | null {
  if (text === '') return null;
  const rate = Number(text);
  if (!Number.isInteger(rate) || rate < 1 || rate > 120)
    throw Problem.refused('rate', 'must be a whole number from 1 to 120.');
  return rate;
}

@ApiTags('footage')
@Controller('footage')
export class FootageController {
  constructor(private readonly footage: FootageService) {}

  /** Takes the bytes of one video as they are. */
  @Post() async take(@Req() request: Request, @Query('name') name = '', @Query('rate') rate = '') {
    if (!request.is('application/octet-stream'))
      throw Problem.ofBody('Send the bytes of one video as application/octet-stream.');
    return answer(await this.footage.take(request, name.slice(0, 200), rateOf(rate)));
  }

  @Get(':id') async one(@Param('id', IdPipe) id: Id) {
    return answer(await this.footage.one(id));
  }

  @Sse(':id/events') events(@Param('id', IdPipe) id: Id): Observable<MessageEvent> {
    return watched(async () => answer(await this.footage.one(id)));
  }

  @Post(':id/stop') @HttpCode(200) async stop(@Param('id', IdPipe) id: Id) {
    return answer(await this.footage.stop(id));
  }
}
