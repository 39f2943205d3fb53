import { ApiProperty } from '@nestjs/swagger';
import {
  ALPHA_KINDS,
  EXPORT_LAYERS,
  EXPORT_LIMITS,
  EXPORT_PARTS,
  EXPORT_SCALE,
  exportFormats,
  forFormat,
  MAX_DELIVERIES,
  patternProblem,
  DEFAULT_EXPORT,
  versionProblem,
  type ExportSettings,
} from '@tallow/core/formats';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Problem } from '../http/problem.ts';
import type { ShotSummary } from '../shots/shots.service.ts';
import { IsOneOf, SHOT_LIMITS } from '../http/rules.ts';

const FRAMES = SHOT_LIMITS.length.max;

class CropRequest {
  @ApiProperty({ minimum: 0 }) @IsInt() @Min(0) @Max(8192) left: number;
  @ApiProperty({ minimum: 0 }) @IsInt() @Min(0) @Max(8192) top: number;
  @ApiProperty({ minimum: 1 }) @IsInt() @Min(1) @Max(8192) width: number;
  @ApiProperty({ minimum: 1 }) @IsInt() @Min(1) @Max(8192) height: number;
}

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

  @ApiProperty({ required: false, minimum: EXPORT_SCALE.min, maximum: EXPORT_SCALE.max })
  @IsOptional()
  @IsNumber()
  @Min(EXPORT_SCALE.min)
  @Max(EXPORT_SCALE.max)
  scale?: number;

  @ApiProperty({
    required: false,
    nullable: true,
    minimum: SHOT_LIMITS.rate.min,
    maximum: SHOT_LIMITS.rate.max,
    description: 'Frames a second; null for those of the shot',
  })
  @IsOptional()
  @IsInt()
  @Min(SHOT_LIMITS.rate.min)
  @Max(SHOT_LIMITS.rate.max)
  rate?: number | null;

  @ApiProperty({ required: false, description: 'Names of files, with {shot}, {part} and {frame}' })
  @IsOptional()
  @IsString()
  pattern?: string;

  @ApiProperty({ required: false, minimum: 0, maximum: EXPORT_LIMITS.handle, description: 'Frames before the range' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(EXPORT_LIMITS.handle)
  before?: number;

  @ApiProperty({ required: false, minimum: 0, maximum: EXPORT_LIMITS.handle, description: 'Frames after the range' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(EXPORT_LIMITS.handle)
  after?: number;

  @ApiProperty({ required: false, description: 'What stands for {version}' })
  @IsOptional()
  @IsString()
  version?: string;

  @ApiProperty({ required: false, nullable: true, description: 'Number of the first file; null for that of its frame' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(EXPORT_LIMITS.first)
  first?: number | null;

  @ApiProperty({ required: false, minimum: 1, maximum: EXPORT_LIMITS.padding, description: 'Digits at least' })
  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(EXPORT_LIMITS.padding)
  padding?: number;

  @ApiProperty({ enum: ALPHA_KINDS, required: false })
  @IsOptional()
  @IsIn(ALPHA_KINDS)
  alpha?: ExportSettings['alpha'];

  @ApiProperty({ required: false, description: 'Whether frames are cut to what is drawn in their sequence' })
  @IsOptional()
  @IsBoolean()
  trim?: boolean;

  @ApiProperty({ required: false, description: 'Whether notes lie beside the frames' })
  @IsOptional()
  @IsBoolean()
  notes?: boolean;

  @ApiProperty({ required: false, description: 'Whether the exposure sheet lies beside the frames' })
  @IsOptional()
  @IsBoolean()
  sheet?: boolean;

  @ApiProperty({ required: false, description: 'Whether layers that are for work are in it' })
  @IsOptional()
  @IsBoolean()
  work?: boolean;

  @ApiProperty({ enum: EXPORT_LAYERS, required: false })
  @IsOptional()
  @IsIn(EXPORT_LAYERS)
  layers?: ExportSettings['layers'];

  @ApiProperty({ required: false, nullable: true, description: 'What of the picture is taken, px of the shot' })
  @IsOptional()
  @ValidateNested()
  @Type(() => CropRequest)
  crop?: CropRequest | null;

  @ApiProperty({ required: false, description: 'What the same job delivers besides; all lie in one zip then' })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MAX_DELIVERIES - 1)
  @ValidateNested({ each: true })
  @Type(() => ExportRequest)
  also?: ExportRequest[];
}

/** The settings asked for, whole. @param path of the request, for naming its fields. @throws Problem naming the field that the shot does not allow. */
export function settingsFor(shot: ShotSummary, request: ExportRequest, path = ''): ExportSettings {
  const format = request.format ?? DEFAULT_EXPORT.format;
  const settings = forFormat({
    format,
    parts: request.parts ?? DEFAULT_EXPORT.parts,
    background: request.background,
    from: request.from ?? 0,
    to: request.to ?? shot.length,
    before: request.before ?? DEFAULT_EXPORT.before,
    after: request.after ?? DEFAULT_EXPORT.after,
    scale: request.scale ?? DEFAULT_EXPORT.scale,
    rate: request.rate ?? DEFAULT_EXPORT.rate,
    pattern: request.pattern ?? DEFAULT_EXPORT.pattern,
    version: request.version ?? DEFAULT_EXPORT.version,
    first: request.first ?? DEFAULT_EXPORT.first,
    padding: request.padding ?? DEFAULT_EXPORT.padding,
    alpha: request.alpha ?? DEFAULT_EXPORT.alpha,
    trim: request.trim ?? DEFAULT_EXPORT.trim,
    notes: request.notes ?? false,
    sheet: request.sheet ?? false,
    work: request.work ?? DEFAULT_EXPORT.work,
    layers: request.layers ?? DEFAULT_EXPORT.layers,
    crop: request.crop ?? null,
    also: [],
  });
  const { crop } = settings;
  if (crop && (crop.left + crop.width > shot.width || crop.top + crop.height > shot.height))
    throw Problem.refused(`${path}crop`, `must lie within ${shot.width} × ${shot.height} px, the shot's picture.`);
  if (settings.to > shot.length)
    throw Problem.refused(`${path}to`, `must be at most ${shot.length}, the shot's length.`);
  if (settings.from >= settings.to) throw Problem.refused(`${path}from`, 'must lie before the end of the range.');
  const largest = Math.max(shot.width, shot.height) * settings.scale;
  if (largest > SHOT_LIMITS.size.max)
    throw Problem.refused(`${path}scale`, `gives ${Math.round(largest)} px; at most ${SHOT_LIMITS.size.max} fit.`);
  const trouble = patternProblem(settings.pattern);
  if (trouble) throw Problem.refused(`${path}pattern`, trouble);
  const wrong = versionProblem(settings.version);
  if (wrong) throw Problem.refused(`${path}version`, wrong);
  const also = (request.also ?? []).map((each, i) => {
    if (each.also?.length) throw Problem.refused(`also.${i}.also`, 'cannot deliver more by itself.');
    return settingsFor(shot, each, `also.${i}.`);
  });
  return { ...settings, also };
}
