import {
  Catch,
  HttpException,
  Logger,
  type ArgumentsHost,
  type ExceptionFilter,
  type ValidationError,
} from '@nestjs/common';
import type { Response } from 'express';
import { whyLater } from '../db/database.ts';
import { shortField } from './short-field.ts';

/** One thing wrong with a request: the field as a path, and what to do about it. */
export interface FieldProblem {
  readonly field: string;
  readonly message: string;
}

/** An error as problem details (RFC 9457), with what else the page needs to act on it. */
export class Problem extends HttpException {
  constructor(status: number, title: string, errors: readonly FieldProblem[] = [], more: Record<string, unknown> = {}) {
    super({ type: 'about:blank', title, status, ...(errors.length > 0 ? { errors } : {}), ...more }, status);
    this.message = title;
  }

  static refused(field: string, message: string): Problem {
    return new Problem(422, `${field} ${message}`, [{ field, message }]);
  }

  /** What was sent is wrong as a whole: a file, not a field of a form. */
  static ofBody(title: string): Problem {
    return new Problem(422, title, [{ field: 'body', message: title }]);
  }

  static missing(what: string): Problem {
    return new Problem(404, `${what} is not there. It may have been deleted.`);
  }
}

/** Turns what class-validator found into problem details naming each field. */
export function validationProblem(found: readonly ValidationError[]): Problem {
  const list = (errors: readonly ValidationError[], path: string): FieldProblem[] =>
    errors.flatMap((error) => {
      const name = shortField(error.property);
      const field = path ? `${path}.${name}` : name;
      const own = Object.values(error.constraints ?? {}).map((message) => ({
        field,
        message: (error.property ? message.replaceAll(error.property, name) : message).replace(
          /^\S+ (?=(must|should|has))/,
          '',
        ),
      }));
      return [...own, ...list(error.children ?? [], field)];
    });
  const errors = list(found, '');
  const first = errors[0];
  return new Problem(
    422,
    first ? `${first.field} ${first.message}` : 'The request is not what the interface says',
    errors,
  );
}

/** Answers every error as problem details; what was not foreseen is logged and said without detail. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('http');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const problem = this.problemOf(error);
    response.status(problem.getStatus()).type('application/problem+json').send(JSON.stringify(problem.getResponse()));
  }

  private problemOf(error: unknown): HttpException {
    if (error instanceof Problem) return error;
    const { status } = (error ?? {}) as { status?: number };
    if (error instanceof HttpException) return new Problem(error.getStatus(), error.message);
    const later = whyLater(error);
    if (later) return new Problem(503, `${later}. Nothing was changed; try again shortly.`);
    if (status && status >= 400 && status < 500)
      return new Problem(status, 'The address or the request cannot be read.');
    this.log.error(error instanceof Error ? (error.stack ?? error.message) : String(error));
    return new Problem(500, 'The server failed at this request. Nothing was changed.');
  }
}
