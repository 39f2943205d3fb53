import { ApiProperty } from '@nestjs/swagger';
import { keptKinds, SHELF_LIMITS, shelfKinds, type KeptKindName, type ShelfKind } from '@tallow/core/shelf';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  Length,
  MaxLength,
} from 'class-validator';
import { IsId, IsName } from '../http/rules.ts';

/** What the shelf says of an effect. */
export class ShelfTold {
  @ApiProperty({ required: false, maxLength: 200 }) @IsOptional() @IsName() name?: string;

  @ApiProperty({ required: false, enum: shelfKinds }) @IsOptional() @IsIn(shelfKinds) kind?: ShelfKind;

  @ApiProperty({ required: false, isArray: true, type: String })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(SHELF_LIMITS.tags)
  @ArrayUnique()
  @IsString({ each: true })
  @Length(1, SHELF_LIMITS.tag, { each: true })
  tags?: string[];

  @ApiProperty({ required: false, maxLength: SHELF_LIMITS.note })
  @IsOptional()
  @IsString()
  @MaxLength(SHELF_LIMITS.note)
  note?: string;
}

export class KeepRequest extends ShelfTold {
  @ApiProperty({ format: 'uuid', description: 'The id it shall have on the shelf' }) @IsId() id: string;
  @ApiProperty({ format: 'uuid' }) @IsId() shotId: string;
  @ApiProperty({ format: 'uuid', description: 'The element of that shot' }) @IsId() elementId: string;
}

/** Settings that are kept. */
export class KeptRequest {
  @ApiProperty({ enum: keptKinds }) @IsIn(keptKinds) kind: KeptKindName;
  @ApiProperty({ maxLength: 200 }) @IsName() name: string;
  @ApiProperty({ type: Object, description: 'The settings, as their kind has them' }) @IsObject() what: object;
}
