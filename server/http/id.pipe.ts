import { isId, type Id } from '@tallow/core/document';
import { Injectable, type ArgumentMetadata, type PipeTransform } from '@nestjs/common';
import { Problem } from './problem.ts';

/** An id in an address: anything but a UUID in lower case names nothing. */
@Injectable()
export class IdPipe implements PipeTransform<string, Id> {
  transform(value: string, { data }: ArgumentMetadata): Id {
    if (isId(value)) return value;
    throw new Problem(404, `There is nothing at this address: ${data ?? 'the id'} is not a UUID in lower case.`);
  }
}
