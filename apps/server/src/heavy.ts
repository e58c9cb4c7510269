import type { RequestHandler } from 'express';
import { Refusal } from './problems.js';

/** Large work at once, of one client and of all: files of jobs and imports are held in memory meanwhile. */
const [OF_ONE, OF_ALL] = [2, 6];
const LARGE_BYTES = 1_000_000;

/** Lets so many large requests in at a time; the others are told to come again. */
export function fewAtOnce(): RequestHandler {
  const busy = new Map<string, number>();
  let all = 0;
  return (request, response, next) => {
    const reads = request.method === 'GET' || request.method === 'HEAD';
    // One that does not say how long it is may be long.
    if (reads || Number(request.headers['content-length'] ?? Infinity) < LARGE_BYTES) return next();
    const client = request.socket.remoteAddress ?? '';
    const own = busy.get(client) ?? 0;
    if (own >= OF_ONE || all >= OF_ALL) {
      response.setHeader('Retry-After', '5');
      throw new Refusal(
        429,
        own >= OF_ONE
          ? 'Two large files from this machine are being taken in; send this one when they are done.'
          : 'Too many large files are being taken in; send this one in a moment.',
      );
    }
    busy.set(client, own + 1);
    all++;
    response.on('close', () => {
      all--;
      const left = busy.get(client)! - 1;
      if (left > 0) busy.set(client, left);
      else busy.delete(client);
    });
    next();
  };
}
