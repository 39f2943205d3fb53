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

/** Nothing answered, or only something between us and the server. */
export class Unreachable extends Error {}

/** Sends a request and reads its JSON. @throws Refused, Unreachable */
export async function request<T>(
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
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
    if (response.status === 503) throw new Unreachable(problem.title);
    throw new Refused(response.status, problem);
  }
  return json as T;
}
