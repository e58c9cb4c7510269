import { STATUS_CODES } from 'node:http';
import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import type { Problem, Result } from '@gangway/station';
import type * as z from 'zod';
import { pointerTo } from '@gangway/station';
import { faultOf, idOf } from './logging.js';
import { codeOf, isUncertain, troubleOf, type Trouble } from './trouble.js';

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

export const taken = (what: string): Refusal =>
  new Refusal(409, `This id is in use by another ${what}; nothing was changed. Send a new one.`);

export const stillInUse = (): Refusal =>
  new Refusal(409, 'Archive it first; only what is archived can be deleted for good.');

/** @throws a 409 when a stored document is no object: a copy would need a name put into it */
export function requireCopyable(document: unknown): void {
  if (typeof document === 'object' && document !== null && !Array.isArray(document)) return;
  throw new Refusal(409, 'It cannot be read, so it cannot be copied; save it as a file.');
}

/** A refusal as problem details. */
export const problemBody = ({ status, detail, more }: Refusal, id: string): string =>
  JSON.stringify({
    type: 'about:blank',
    title: STATUS_CODES[status],
    status,
    detail,
    instance: id,
    ...more,
  });

export function sendProblem(response: Response, refusal: Refusal): void {
  if (refusal.status === 503) response.setHeader('Retry-After', '2');
  response
    .status(refusal.status)
    .type('application/problem+json')
    .send(problemBody(refusal, idOf(response)));
}

/** Parses what came in. @throws a 422 with a pointer to each bad field */
export function accept<T extends z.ZodType>(schema: T, input: unknown): z.infer<T> {
  const read = schema.safeParse(input);
  if (read.success) return read.data;
  throw new Refusal(422, 'The request has fields that cannot be used.', {
    errors: read.error.issues.map(({ path, message }) => ({ pointer: pointerTo(path), message })),
  });
}

const IN_TROUBLE: Readonly<Record<Trouble, string>> = {
  away: 'The database does not answer.',
  full: 'The disk that holds the database is full. Make room on it.',
  again: 'The database is busy with other changes.',
  busy: 'The database took too long.',
  refused: 'The database does not let Gangway in. Look at its user and password.',
};

/** What was stored stays so, whatever fails after it: the sentence must not say otherwise. */
const STORED = 'What you sent is stored; it cannot be shown at the moment.';
const UNCERTAIN =
  'Whether what you sent was stored is not known; sending the same again stores it once.';
const NOTHING_CHANGED = 'Nothing was changed.';

/** Marks what fails after the change was stored. */
class AfterStoring extends Error {}

/** Runs what only shows a change that is stored already. @throws with what failed, marked so */
export async function afterStoring<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new AfterStoring('after storing', { cause: error });
  }
}

const outcomeOf = (error: unknown): string =>
  error instanceof AfterStoring ? STORED : isUncertain(error) ? UNCERTAIN : NOTHING_CHANGED;

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

/** Codes of values the database cannot hold, should one get past the checks. */
const CANNOT_HOLD = /^22/;

function asRefusal(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  const trouble = troubleOf(error);
  if (trouble) return new Refusal(503, `${IN_TROUBLE[trouble]} ${outcomeOf(error)}`);
  if (CANNOT_HOLD.test(codeOf(error) ?? '')) {
    return new Refusal(422, 'The request holds a value that cannot be kept. Nothing was changed.');
  }
  const { status } = (error ?? {}) as { status?: number };
  if (status === 404) return new Refusal(404, 'There is nothing at this address.');
  if (error instanceof URIError) {
    return new Refusal(400, 'The address cannot be read; it holds a broken % sign.');
  }
  // What the framework refuses by itself: a path it cannot serve.
  if (status !== undefined && status >= 400 && status < 500) {
    return new Refusal(status, 'The request cannot be read.');
  }
  return null;
}

/** A fault of ours: where in its work it came is not known. */
const afterFault = (error: unknown): string =>
  error instanceof AfterStoring ? STORED : 'Look at what is there before you try again.';

export const errorHandler =
  (log: Logger): ErrorRequestHandler =>
  (error, _request, response, next) => {
    const refusal = asRefusal(error);
    if (!refusal || (refusal.status === 503 && refusal !== error)) {
      log[refusal ? 'warn' : 'error']({ id: idOf(response), ...faultOf(error) }, 'failed');
    }
    if (response.headersSent) {
      next(error);
      return;
    }
    sendProblem(
      response,
      refusal ?? new Refusal(500, `Something went wrong on the server. ${afterFault(error)}`),
    );
  };
