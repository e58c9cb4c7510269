import type { Server } from 'node:http';
import type { Socket } from 'node:net';
import { EVERY_ANSWER } from './headers.js';
import { problemBody, type Refusal, Refusal as Refused } from './problems.js';

/** Who is connected: not too many at once, and nobody for ever. */

/** A browser opens six; a studio has some dozens of pages. */
const MOST_CONNECTIONS = 1000;
/** All that goes before the body has come by then, and the whole request by then, ms. */
const [HEADERS_MS, REQUEST_MS] = [15_000, 120_000];
const LOOKED_EVERY_MS = 3_000;
/** Requests over one connection before it is to be opened anew. */
const MOST_REQUESTS = 10_000;

/** Answers a connection that has no request that could be answered, and ends it. */
export function refuseSocket(socket: Socket, refusal: Refusal): void {
  if (!socket.writable) return;
  const body = problemBody(refusal, '');
  const head = [
    `HTTP/1.1 ${refusal.status} ${refusal.status === 503 ? 'Service Unavailable' : 'Bad Request'}`,
    'Connection: close',
    'Content-Type: application/problem+json',
    `Content-Length: ${Buffer.byteLength(body)}`,
    ...EVERY_ANSWER.map(([name, value]) => `${name}: ${value}`),
  ];
  socket.end(`${head.join('\r\n')}\r\n\r\n${body}`);
}

/** Sets the bounds of a server’s connections. */
export function bound(server: Server): void {
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  server.maxRequestsPerSocket = MOST_REQUESTS;
  let open = 0;
  server.on('connection', (socket: Socket) => {
    socket.on('close', () => open--);
    if (++open <= MOST_CONNECTIONS) return;
    // What it says meanwhile is not listened to.
    socket.removeAllListeners('data');
    refuseSocket(socket, new Refused(503, 'Too many connections are open. Try again in a moment.'));
  });
  // What is no HTTP never reaches a route; what is too slow is cut.
  server.on('clientError', (error: NodeJS.ErrnoException, socket: Socket) => {
    const slow = error.code === 'ERR_HTTP_REQUEST_TIMEOUT';
    refuseSocket(
      socket,
      slow
        ? new Refused(408, 'The request took too long to come.')
        : new Refused(400, 'This is not a request that can be read.'),
    );
  });
}

export const SERVER_OPTIONS = { connectionsCheckingInterval: LOOKED_EVERY_MS } as const;
