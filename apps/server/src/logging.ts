import { randomUUID } from 'node:crypto';
import type { RequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { codeOf } from './trouble.js';

/** Logs hold ids and codes: no documents, no parameters, no words that came from outside. */

const REQUEST_ID = /^[\w-]{1,64}$/;
const ASKED_AGAIN_AND_AGAIN = new Set(['/healthz', '/readyz']);

export const idOf = (response: Response): string => String(response.locals.id ?? '');

/** Gives each request an id and logs how it was answered: as an error, a refusal or a detail. */
export function requestLog(log: Logger): RequestHandler {
  return (request, response, next) => {
    const given = request.headers['x-request-id'];
    const id = typeof given === 'string' && REQUEST_ID.test(given) ? given : randomUUID();
    response.locals.id = id;
    response.setHeader('X-Request-Id', id);
    const { path } = request;
    response.on('finish', () => {
      const { statusCode: status } = response;
      // That it is not ready yet is no error.
      if (status < 400 || ASKED_AGAIN_AND_AGAIN.has(path)) return;
      const [method, url] = [request.method, path.slice(0, 200)];
      log[status >= 500 ? 'error' : 'info']({ id, method, url, status }, 'refused');
    });
    next();
  };
}

/** An error in one line. A message may quote what was asked or typed: it is left out. */
export function faultOf(error: unknown): Record<string, unknown> {
  const code = codeOf(error);
  if (!(error instanceof Error)) return { error: typeof error };
  const places = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return {
    error: error.constructor.name,
    ...(code === null ? {} : { code }),
    // A failed query says enough by its code.
    ...(code === null && places.length > 0
      ? { at: places.slice(0, 4).map((line) => line.trim().replace(/\(?file:\/\/.*\//, '(')) }
      : {}),
  };
}
