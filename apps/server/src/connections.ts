import { STATUS_CODES, type Server } from 'node:http';
import type { Socket } from 'node:net';
import { EVERY_ANSWER } from './headers.js';
import { problemBody, Refusal } from './problems.js';

/** Who is connected: not too many at once, and nobody for ever. */

interface Limits {
  /** Connections at once. */
  readonly most: number;
  /** All that goes before the body has come by then, and the whole request by then. */
  readonly headersMs: number;
  readonly requestMs: number;
}

/** A browser opens six connections; a studio has some dozens of pages. */
const LIMITS: Limits = { most: 1000, headersMs: 15_000, requestMs: 120_000 };
const LOOKED_EVERY_MS = 3_000;
/** Requests over one connection before it is to be opened anew. */
const MOST_REQUESTS = 10_000;

/** Answers a connection that has no request that could be answered, and ends it. */
export function refuseSocket(socket: Socket, refusal: Refusal): void {
  if (!socket.writable) return;
  const body = problemBody(refusal, '');
  const head = [
    `HTTP/1.1 ${refusal.status} ${STATUS_CODES[refusal.status] ?? ''}`,
    'Connection: close',
    'Content-Type: application/problem+json',
    `Content-Length: ${Buffer.byteLength(body)}`,
    ...EVERY_ANSWER.map(([name, value]) => `${name}: ${value}`),
  ];
  socket.end(`${head.join('\r\n')}\r\n\r\n${body}`);
}

/** Sets the bounds of a server’s connections. */
export function bound(server: Server, { most, headersMs, requestMs } = LIMITS): void {
  server.headersTimeout = headersMs;
  server.requestTimeout = requestMs;
  server.maxRequestsPerSocket = MOST_REQUESTS;
  let open = 0;
  server.on('connection', (socket: Socket) => {
    socket.on('close', () => open--);
    if (++open <= most) return;
    // What it says meanwhile is not listened to.
    socket.removeAllListeners('data');
    refuseSocket(socket, new Refusal(503, 'Too many connections are open. Try again in a moment.'));
  });
  // What is no HTTP never reaches a route; what is too slow is cut.
  server.on('clientError', (error: NodeJS.ErrnoException, socket: Socket) => {
    const slow = error.code === 'ERR_HTTP_REQUEST_TIMEOUT';
    refuseSocket(
      socket,
      slow
        ? new Refusal(408, 'The request took too long to come.')
        : new Refusal(400, 'This is not a request that can be read.'),
    );
  });
}

export const SERVER_OPTIONS = { connectionsCheckingInterval: LOOKED_EVERY_MS } as const;
