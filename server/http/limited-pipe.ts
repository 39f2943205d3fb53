/** Requests are checked against their classes, lists for their length first: a list that is too long is not looked at entry by entry. */
import { Injectable, ValidationPipe, type ArgumentMetadata } from '@nestjs/common';
import { ARRAY_MAX_SIZE, getMetadataStorage } from 'class-validator';
import { Problem, validationProblem } from './problem.ts';

/** The most entries that a class allows each of its lists, by `ArrayMaxSize`. */
const maxOf = (type: NonNullable<ArgumentMetadata['metatype']>): [field: string, max: number][] =>
  getMetadataStorage()
    .getTargetValidationMetadatas(type, '', false, false)
    .filter(({ name }) => name === ARRAY_MAX_SIZE)
    .map(({ propertyName, constraints }) => [propertyName, Number((constraints as unknown[])[0])]);

@Injectable()
export class LimitedPipe extends ValidationPipe {
  constructor() {
    super({ transform: true, whitelist: true, forbidNonWhitelisted: true, exceptionFactory: validationProblem });
  }

  override async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    if (metadata.type === 'body' && metadata.metatype && typeof value === 'object' && value !== null)
      for (const [field, max] of maxOf(metadata.metatype)) {
        const list = (value as Record<string, unknown>)[field];
        if (Array.isArray(list) && list.length > max)
          throw Problem.refused(field, `must hold at most ${max}; there are ${list.length}.`);
      }
    return super.transform(value, metadata) as Promise<unknown>;
  }
}
