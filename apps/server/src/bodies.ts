import { isUtf8 } from 'node:buffer';
import type { Request, RequestHandler } from 'express';
import { Refusal } from './problems.js';

/**
 * What comes in is looked through as it comes, a byte at a time, before anything is built from it: what is
 * too large, too deep or too full never reaches the parser.
 */
export interface Bounds {
  /** What it is, for the sentence of a refusal. */
  readonly what: string;
  readonly bytes: number;
  readonly depth: number;
  /** Entries of lists and fields of objects, all together. */
  readonly members: number;
}

const megabytes = (bytes: number): string => `${Math.round(bytes / 1e5) / 10} MB`;

const tooLarge = ({ what, bytes }: Bounds, has: number): Refusal =>
  new Refusal(413, `${what} is ${megabytes(has)} or more; at most ${megabytes(bytes)} are taken.`);

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [BRACE, BRACKET, UNBRACE, UNBRACKET] = [0x7b, 0x5b, 0x7d, 0x5d];

/** Counts what JSON holds while its bytes go by. */
export class Measure {
  private depth = 0;
  private members = 0;
  private bytes = 0;
  private inText = false;
  private escaped = false;

  constructor(private readonly bounds: Bounds) {}

  /** @throws a 413 with what is too much */
  take(chunk: Uint8Array): void {
    const { bounds } = this;
    this.bytes += chunk.length;
    if (this.bytes > bounds.bytes) throw tooLarge(bounds, this.bytes);
    for (const byte of chunk) {
      if (this.inText) {
        if (this.escaped) this.escaped = false;
        else if (byte === BACKSLASH) this.escaped = true;
        else if (byte === QUOTE) this.inText = false;
      } else if (byte === QUOTE) this.inText = true;
      else if (byte === COMMA) this.members++;
      else if (byte === BRACE || byte === BRACKET) {
        this.members++;
        if (++this.depth > bounds.depth) {
          throw new Refusal(413, `${bounds.what} is nested deeper than ${bounds.depth} levels.`);
        }
      } else if (byte === UNBRACE || byte === UNBRACKET) this.depth--;
    }
    if (this.members > bounds.members) {
      const most = bounds.members.toLocaleString('en');
      throw new Refusal(413, `${bounds.what} holds more than ${most} entries and fields.`);
    }
  }
}

/** A body so long is not read to its end only to be thrown away. */
const DRAINED_BYTES = 64_000_000;

const IS_JSON = /^application\/(?:[\w.+-]+\+)?json\s*(?:;\s*charset=("?)utf-8\1\s*)?$/i;

/** @throws where the body is of a kind that is not read */
function requireJson({ headers }: Request): void {
  const encoding = headers['content-encoding'] ?? 'identity';
  if (encoding.toLowerCase() !== 'identity') {
    throw new Refusal(415, 'The request body is compressed; send it as it is.');
  }
  if (!IS_JSON.test(headers['content-type'] ?? '')) {
    throw new Refusal(
      415,
      'The request body must be JSON in UTF-8: Content-Type application/json.',
    );
  }
}

const hasBody = ({ headers }: Request): boolean =>
  headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0;

/** Reads a whole body, measured as it comes. @throws a refusal */
export async function bytesOf(
  request: Request,
  bounds: Bounds,
  onChunk: (chunk: Buffer) => void = () => {},
): Promise<Buffer> {
  const said = Number(request.headers['content-length'] ?? 0);
  if (said > DRAINED_BYTES) request.res?.setHeader('Connection', 'close');
  if (said > bounds.bytes) throw tooLarge(bounds, said);
  requireJson(request);
  const measure = new Measure(bounds);
  const chunks: Buffer[] = [];
  for await (const chunk of request.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    measure.take(chunk);
    onChunk(chunk);
    chunks.push(chunk);
  }
  if (!request.complete) throw new Refusal(400, 'The request ended before all of it had come.');
  const bytes = Buffer.concat(chunks);
  if (!isUtf8(bytes)) throw new Refusal(400, 'The request body must be in UTF-8.');
  return bytes;
}

/** Reads the body of a change; what is only asked for has none that matters. */
export const jsonBody =
  (bounds: Bounds): RequestHandler =>
  async (request, _response, next) => {
    // A route before this one may have read it with wider bounds.
    const isRead = request.body !== undefined;
    const reads = request.method === 'GET' || request.method === 'HEAD';
    if (isRead || reads || !hasBody(request)) return next();
    const bytes = await bytesOf(request, bounds);
    try {
      request.body = JSON.parse(bytes.toString('utf8').replace(/^\uFEFF/, ''));
    } catch {
      throw new Refusal(400, 'The request body is not JSON.');
    }
    next();
  };
