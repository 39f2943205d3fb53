import { Type } from 'class-transformer';
import { ApiProperty } from '@nestjs/swagger';
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsObject,
  IsOptional,
  Matches,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
  IsBoolean,
  IsInstance,
} from 'class-validator';
import { entityKinds } from '@tallow/core/document';
import { IsId, IsName, IsOneOf, SHOT_LIMITS } from '../http/rules.ts';

export class NewProductionRequest {
  @ApiProperty({ format: 'uuid' }) @IsId() id: string;
  @ApiProperty({ maxLength: 200 }) @IsName() name: string;
}

export class RenameRequest {
  @ApiProperty({ maxLength: 200 }) @IsName() name: string;
}

export class DuplicateRequest {
  @ApiProperty({ format: 'uuid', description: 'The id the new shot shall have' }) @IsId() id: string;
}

export class NewShotRequest {
  @ApiProperty({ format: 'uuid' }) @IsId() id: string;
  @ApiProperty({ format: 'uuid' }) @IsId() productionId: string;
  @ApiProperty({ maxLength: 200 }) @IsName() name: string;

  @ApiProperty({ minimum: SHOT_LIMITS.size.min, maximum: SHOT_LIMITS.size.max, description: 'px' })
  @IsInt()
  @Min(SHOT_LIMITS.size.min)
  @Max(SHOT_LIMITS.size.max)
  width: number;

  @ApiProperty({ minimum: SHOT_LIMITS.size.min, maximum: SHOT_LIMITS.size.max, description: 'px' })
  @IsInt()
  @Min(SHOT_LIMITS.size.min)
  @Max(SHOT_LIMITS.size.max)
  height: number;

  @ApiProperty({ minimum: SHOT_LIMITS.rate.min, maximum: SHOT_LIMITS.rate.max, description: 'frames per second' })
  @IsInt()
  @Min(SHOT_LIMITS.rate.min)
  @Max(SHOT_LIMITS.rate.max)
  rate: number;

  @ApiProperty({ minimum: SHOT_LIMITS.length.min, maximum: SHOT_LIMITS.length.max, description: 'frames' })
  @IsInt()
  @Min(SHOT_LIMITS.length.min)
  @Max(SHOT_LIMITS.length.max)
  length: number;

  @ApiProperty({ type: String, nullable: true, description: '#rrggbb, or null for transparent' })
  @ValidateIf((request: NewShotRequest) => request.background !== null)
  @Matches(/^#[0-9a-f]{6}$/, { message: 'background must be a colour such as #101418, or null for transparent' })
  background: string | null;
}

export class PutRequest {
  @ApiProperty({ format: 'uuid' }) @IsId() id: string;
  @ApiProperty({ enum: entityKinds() }) @IsOneOf(entityKinds) kind: string;
  @ApiProperty({ required: false, type: Object, description: 'The whole body of the entity' })
  @IsOptional()
  @IsObject()
  body?: Record<string, unknown>;
  @ApiProperty({ required: false, description: 'Brings a deleted entity back, with its last body unless one is given' })
  @IsOptional()
  @IsBoolean()
  restore?: boolean;
  @ApiProperty({ required: false, format: 'uuid', description: 'Takes the body of this entity of the same shot' })
  @IsOptional()
  @IsId()
  copyOf?: string;
}

/** Things to put and to delete: a whole save, or one part of a large one. */
export class PartRequest {
  @ApiProperty({ type: [PutRequest] })
  @IsArray()
  @ArrayMaxSize(5000)
  @IsInstance(PutRequest, { each: true, message: 'puts must hold objects with id and kind' })
  @ValidateNested({ each: true })
  @Type(() => PutRequest)
  puts: PutRequest[];

  @ApiProperty({ type: [String] }) @IsArray() @ArrayMaxSize(5000) @IsId({ each: true }) deletes: string[];
}

export class SaveRequest extends PartRequest {
  @ApiProperty({ format: 'uuid', description: 'A repeat of a save is answered as the first time' })
  @IsId()
  saveId: string;
  @ApiProperty({ minimum: 1, description: 'The revision the bodies were made from' })
  @IsInt()
  @Min(1)
  @Max(2147483647)
  baseRevision: number;

  @ApiProperty({ required: false, description: 'The history of the database that the base revision belongs to' })
  @IsOptional()
  @IsId()
  epoch?: string;

  @ApiProperty({ required: false, minimum: 0, description: 'Parts sent before that belong to this save' })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(10_000)
  parts?: number;

  @ApiProperty({ required: false, description: 'SHA-256 of the SHA-256s of the parts in hex, one after the other' })
  @IsOptional()
  @Matches(/^[0-9a-f]{64}$/, { message: 'digest must be a SHA-256 in lower-case hex' })
  digest?: string;

  @ApiProperty({ required: false, format: 'uuid', description: 'Whose edits these are, and up to which of them' })
  @IsOptional()
  @IsId()
  tab?: string;
  @ApiProperty({ required: false, minimum: 0 })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(Number.MAX_SAFE_INTEGER)
  seq?: number;

  @ApiProperty({
    required: false,
    type: [String],
    description: 'Ids that may be pointed at though they are not known yet: they come with a later save, or never',
  })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20_000)
  @IsId({ each: true })
  held?: string[];
}
