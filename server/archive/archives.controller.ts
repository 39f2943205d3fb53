import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { Id } from '@tallow/core/document';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Post,
  Query,
  Req,
  Res,
  Sse,
  type MessageEvent,
} from '@nestjs/common';
import { IsIn, ValidateIf } from 'class-validator';
import type { Request, Response } from 'express';
import type { Observable } from 'rxjs';
import { IdPipe } from '../http/id.pipe.ts';
import { Problem } from '../http/problem.ts';
import { IsId } from '../http/rules.ts';
import { sendFile } from '../http/send-file.ts';
import { watched } from '../http/watched.ts';
import { archiveFile, ArchivesService } from './archives.service.ts';
import { SCOPES, type Scope } from './contents.ts';

class ArchiveRequest {
  @ApiProperty({ enum: SCOPES }) @IsIn(SCOPES) scope: Scope;

  @ApiProperty({ required: false, format: 'uuid', description: 'The shot or production; not for all' })
  @ValidateIf(({ scope }: ArchiveRequest) => scope !== 'all')
  @IsId()
  of?: string;
}

@ApiTags('archives')
@Controller('archives')
export class ArchivesController {
  constructor(private readonly archives: ArchivesService) {}

  @Post() write(@Body() { scope, of }: ArchiveRequest) {
    return this.archives.write(scope, scope === 'all' ? null : (of ?? null));
  }

  /** Takes the bytes of one archive as they are. */
  @Post('in') read(@Req() request: Request, @Query('name') name = '') {
    if (!request.is('application/octet-stream'))
      throw Problem.ofBody('Send the bytes of one archive as application/octet-stream.');
    return this.archives.read(request, name.slice(0, 200));
  }

  @Get(':id') one(@Param('id', IdPipe) id: Id) {
    return this.archives.one(id);
  }

  @Sse(':id/events') events(@Param('id', IdPipe) id: Id): Observable<MessageEvent> {
    return watched(() => this.archives.one(id));
  }

  @Post(':id/stop') @HttpCode(200) stop(@Param('id', IdPipe) id: Id) {
    return this.archives.stop(id);
  }

  @Delete(':id') @HttpCode(204) remove(@Param('id', IdPipe) id: Id) {
    return this.archives.remove(id);
  }

  @Get(':id/file') async file(@Param('id', IdPipe) id: Id, @Res() response: Response) {
    const { state, direction, fileName } = await this.archives.one(id);
    if (state !== 'done' || direction !== 'out') throw new Problem(409, 'This archive is not finished.');
    await sendFile(response, archiveFile(id), fileName, 'The file of this archive');
  }
}
