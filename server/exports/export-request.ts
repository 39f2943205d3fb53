import { ApiProperty } from '@nestjs/swagger';
import {
  EXPORT_PARTS,
  EXPORT_SCALE,
  exportFormats,
  partsOf,
  patternProblem,
  USUAL_PATTERN,
  type ExportSettings,
} from '@tallow/core/formats';
import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsString, Max, Min } from 'class-validator';
import { Problem } from '../http/problem.ts';
import type { ShotSummary } from '../shots/shots.service.ts';
import { IsOneOf, SHOT_LIMITS } from '../http/rules.ts';

const FRAMES = SHOT_LIMITS.length.most;

export class ExportRequest {
  @ApiProperty({ description: 'Whether the background colour is in it' }) @IsBoolean() background: boolean;

  @ApiProperty({ enum: exportFormats(), required: false })
  @IsOptional()
  @IsOneOf(exportFormats)
  format?: ExportSettings['format'];

  @ApiProperty({ enum: EXPORT_PARTS, required: false })
  @IsOptional()
  @IsIn(EXPORT_PARTS)
  parts?: ExportSettings['parts'];

  @ApiProperty({ required: false, minimum: 0, description: 'First frame, from 0' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(FRAMES)
  from?: number;

  @ApiProperty({ required: false, minimum: 1, description: 'One past the last frame' })
  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(FRAMES)
  to?: number;

  @ApiProperty({ required: false, minimum: EXPORT_SCALE.least, maximum: EXPORT_SCALE.most })
  @IsOptional()
  @IsNumber()
  @Min(EXPORT_SCALE.least)
  @Max(EXPORT_SCALE.most)
  scale?: number;

  @ApiProperty({ required: false, description: 'Names of files, with {shot}, {part} and {frame}' })
  @IsOptional()
  @IsString()
  pattern?: string;

  @ApiProperty({ required: false, description: 'Whether the exposure sheet lies beside the frames' })
  @IsOptional()
  @IsBoolean()
  sheet?: boolean;

  @ApiProperty({ required: false, description: 'Whether layers that are for work are in it' })
  @IsOptional()
  @IsBoolean()
  work?: boolean;
}

/** The settings asked for, whole. @throws Problem naming the field that the shot does not allow. */
export function settingsFor(shot: ShotSummary, request: ExportRequest): ExportSettings {
  const format = request.format ?? 'png';
  const settings: ExportSettings = {
    format,
    parts: partsOf({ format, parts: request.parts ?? 'picture' }),
    background: request.background,
    from: request.from ?? 0,
    to: request.to ?? shot.length,
    scale: request.scale ?? 1,
    pattern: request.pattern ?? USUAL_PATTERN,
    sheet: request.sheet ?? false,
    work: request.work ?? false,
  };
  if (settings.to > shot.length) throw Problem.refused('to', `must be at most ${shot.length}, the shot's length.`);
  if (settings.from >= settings.to) throw Problem.refused('from', 'must lie before the end of the range.');
  const largest = Math.max(shot.width, shot.height) * settings.scale;
  if (largest > SHOT_LIMITS.size.most)
    throw Problem.refused('scale', `gives ${Math.round(largest)} px; at most ${SHOT_LIMITS.size.most} fit.`);
  const trouble = patternProblem(settings.pattern);
  if (trouble) throw Problem.refused('pattern', trouble);
  return settings;
}
