import type { Id } from '@tallow/core/document';
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Res, Sse, type MessageEvent } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { Observable } from 'rxjs';
import { Problem } from '../http/problem.ts';
import { ExportRequest } from './export-request.ts';
import { IdPipe } from '../http/id.pipe.ts';
import { sendFile } from '../http/send-file.ts';
import { watched } from '../http/watched.ts';
import { exportPath, ExportsService } from './exports.service.ts';

@ApiTags('exports')
@Controller()
export class ExportsController {
  constructor(private readonly exports: ExportsService) {}

  @Get('shots/:id/exports') list(@Param('id', IdPipe) id: Id) {
    return this.exports.list(id);
  }

  @Post('shots/:id/exports') create(@Param('id', IdPipe) id: Id, @Body() request: ExportRequest) {
    return this.exports.create(id, request);
  }

  @Delete('shots/:id/exports') @HttpCode(204) clear(@Param('id', IdPipe) id: Id) {
    return this.exports.clear(id);
  }

  @Sse('exports/:id/events') events(@Param('id', IdPipe) id: Id): Observable<MessageEvent> {
    return watched(() => this.exports.one(id));
  }

  @Post('exports/:id/stop') @HttpCode(200) stop(@Param('id', IdPipe) id: Id) {
    return this.exports.stop(id);
  }

  @Delete('exports/:id') @HttpCode(204) remove(@Param('id', IdPipe) id: Id) {
    return this.exports.remove(id);
  }

  @Get('exports/:id/file') async file(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    const { state, fileName } = await this.exports.one(id);
    if (state !== 'done') throw new Problem(409, 'This export is not finished.');
    await sendFile(response, exportPath(id), fileName, 'The file of this export');
  }
}
