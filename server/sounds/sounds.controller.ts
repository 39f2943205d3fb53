import { Controller, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Problem } from '../http/problem.ts';
import { SoundsService } from './sounds.service.ts';

@ApiTags('sounds')
@Controller('sounds')
export class SoundsController {
  constructor(private readonly sounds: SoundsService) {}

  /** Takes the bytes of one sound file as they are. Who goes away before the answer has it stopped. */
  @Post() keep(@Req() request: Request, @Res({ passthrough: true }) response: Response) {
    if (!request.is('application/octet-stream'))
      throw Problem.ofBody('Send the bytes of one sound as application/octet-stream.');
    const stop = new AbortController();
    response.once('close', () => {
      if (!response.writableEnded) stop.abort();
    });
    return this.sounds.keep(request, stop.signal);
  }
}
