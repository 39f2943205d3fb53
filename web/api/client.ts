/** Requests to the server. Errors carry what the server said, or that it could not be reached. */

/** The server answered, but refused; `problem` is its problem details. */
export class Refused extends Error {
  readonly status: number;
  readonly problem: { title: string; errors?: { field: string; message: string }[]; [more: string]: unknown };

  constructor(status: number, problem: Refused['problem']) {
    super(problem.title);
    this.status = status;
    this.problem = problem;
  }
}

/** Nothing answered, or the server cannot do it now: the same request may well succeed later. */
export class Unreachable extends Error {}

/** Answers that say so: signed out, timed out, too many requests, and whatever is wrong at the server's end. */
const passes = (status: number): boolean => status === 401 || status === 408 || status === 429 || status >= 500;

/** A server that has not answered by then is taken as out of reach, ms. */
const LONGEST_MS = 60_000;

/** Sends a request and reads its JSON. @throws Refused, Unreachable */
export async function request<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal: AbortSignal.timeout(LONGEST_MS),
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      // Text is JSON already.
      body: body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body),
    });
  } catch {
    throw new Unreachable('The server cannot be reached');
  }
  if (response.status === 204) return undefined as T;
  const text = await response.text().catch(() => {
    throw new Unreachable('The server went away');
  });
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Unreachable('The server gave no proper answer');
  }
  if (!response.ok) {
    const problem = json as Refused['problem'];
    if (passes(response.status)) throw new Unreachable(sentence(problem.title));
    throw new Refused(response.status, problem);
  }
  return json as T;
}

/** The first thing that was said, without a full stop: who asks says what follows from it. */
const sentence = (text: string): string => text.split('. ')[0]!.replace(/\.$/, '');
