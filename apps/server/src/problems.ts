import { STATUS_CODES } from 'node:http';
import type {} from 'pino-http'; // its request.id and request.log
import type { ErrorRequestHandler, Request, Response } from 'express';
import type { Problem, Result } from '@gangway/station';
import type * as z from 'zod';
import { pointerTo } from '@gangway/station';
import { isDatabaseAway } from './database.js';

/** A refusal to be sent as problem details (RFC 9457). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    /** One sentence: what is wrong and what to do. */
    readonly detail: string,
    /** Extension members, `errors` among them: a JSON pointer to each bad field. */
    readonly more: { errors?: Problem[] } & Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

export const notFound = (what: string): Refusal =>
  new Refusal(404, `There is no such ${what}; it may have been opened from an old link.`);

export function sendProblem(request: Request, response: Response, refusal: Refusal): void {
  if (refusal.status === 503) response.setHeader('Retry-After', '2');
  response
    .status(refusal.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: 'about:blank',
        title: STATUS_CODES[refusal.status],
        status: refusal.status,
        detail: refusal.detail,
        instance: String(request.id ?? ''),
        ...refusal.more,
      }),
    );
}

/** Parses what came in. @throws a 422 with a pointer to each bad field */
export function accept<T extends z.ZodType>(schema: T, input: unknown): z.infer<T> {
  const read = schema.safeParse(input);
  if (read.success) return read.data;
  throw new Refusal(422, 'The request has fields that cannot be used.', {
    errors: read.error.issues.map(({ path, message }) => ({ pointer: pointerTo(path), message })),
  });
}

const DATABASE_AWAY =
  'The database does not answer. Nothing was changed; keep the page open and it will be tried again.';

/** Takes a document that was read, or refuses it with pointers that lead into `document`. */
export function acceptDocument<T>(what: string, read: Result<T>, under = '/document'): T {
  if (read.ok) return read.value;
  throw new Refusal(422, `The ${what} has fields that cannot be used.`, {
    errors: read.problems.map(({ pointer, message }) => ({
      pointer: `${under}${pointer}`,
      message,
    })),
  });
}

/** @throws a 409 that holds both versions */
export function stale(what: string, current: unknown, yours: Record<string, unknown>): never {
  throw new Refusal(
    409,
    `This ${what} was changed elsewhere since you opened it. Keep yours, take the other, or keep both.`,
    { current, yours },
  );
}

interface BodyError {
  type?: string;
  status?: number;
}

function asRefusal(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  if (isDatabaseAway(error)) return new Refusal(503, DATABASE_AWAY);
  const { type, status } = (error ?? {}) as BodyError;
  if (status === 404) return new Refusal(404, 'There is nothing at this address.');
  if (type === 'entity.too.large') {
    return new Refusal(
      413,
      'The request is too large; a station is at most 2 MB, a part of an import 12 MB.',
    );
  }
  if (type === 'entity.parse.failed') return new Refusal(400, 'The request body is not JSON.');
  if (type !== undefined && status !== undefined && status >= 400 && status < 500) {
    return new Refusal(status, 'The request cannot be read.');
  }
  return null;
}

export const handleErrors: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const refusal = asRefusal(error);
  if (!refusal) request.log.error({ err: error as unknown }, 'unforeseen');
  sendProblem(
    request,
    response,
    refusal ??
      new Refusal(500, 'Something went wrong on the server. Nothing was changed; try again.'),
  );
};
