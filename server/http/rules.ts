import { SHOT_LIMITS, isId, textProblem } from '@tallow/core/document';
import { registerDecorator, type ValidationOptions } from 'class-validator';

/** A name that can be kept: the same rule as in bodies. */
export function IsName(options?: ValidationOptions) {
  return (target: object, propertyName: string): void => {
    registerDecorator({
      name: 'isName',
      target: target.constructor,
      propertyName,
      options,
      validator: {
        validate: (value: unknown) => textProblem(value, 'name') === null,
        defaultMessage: (found) => {
          const problem = textProblem(found?.value, 'must be a name; it') ?? 'must be a name';
          return `${found?.property ?? 'name'} ${problem}`;
        },
      },
    });
  };
}

/** A UUID in lower case. */
export function IsId(options?: ValidationOptions) {
  return (target: object, propertyName: string): void => {
    registerDecorator({
      name: 'isId',
      target: target.constructor,
      propertyName,
      options,
      validator: { validate: isId, defaultMessage: () => `${propertyName} must be a UUID in lower case` },
    });
  };
}

/** One of a list, as the list is when it is asked. */
export function IsOneOf(list: () => readonly string[], options?: ValidationOptions) {
  return (target: object, propertyName: string): void => {
    registerDecorator({
      name: 'isOneOf',
      target: target.constructor,
      propertyName,
      options,
      validator: {
        validate: (value) => list().some((each) => each === value),
        defaultMessage: () => `${propertyName} must be one of ${list().join(', ')}`,
      },
    });
  };
}

export { SHOT_LIMITS };
