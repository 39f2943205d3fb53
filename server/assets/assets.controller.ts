import { isAsset } from '@tallow/core/document';
import { Controller, Get, Param, Post, Query, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Problem } from '../http/problem.ts';
import { AssetsService } from './assets.service.ts';

@ApiTags('assets')
@Controller('assets')
export class AssetsController {
  constructor(private readonly assets: AssetsService) {}

  /** Takes the bytes of one picture as they are. */
  @Post() keep(@Req() request: Request, @Query('name') name?: string) {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body)) throw Problem.ofBody('Send the bytes of one picture as application/octet-stream.');
    return this.assets.keep(body, typeof name === 'string' ? name.slice(0, 200) : '');
  }

  @Get(':sha256') async one(@Param('sha256') sha256: string, @Res() response: Response): Promise<void> {
    if (!isAsset(sha256)) throw Problem.missing('This picture or sound');
    const { content, type } = await this.assets.one(sha256);
    response
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      .set('Content-Disposition', 'inline')
      .type(type)
      .send(content);
  }
}
