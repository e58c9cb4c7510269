import { createServer, type Server } from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { bound } from '../src/connections.js';

/** Connections that are held, slow, or too many. */
let server: Server;
const begin = async (limits: Parameters<typeof bound>[1]): Promise<number> => {
  server = createServer({ connectionsCheckingInterval: 20 }, (_request, response) =>
    response.end('served'),
  );
  bound(server, limits);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return (server.address() as AddressInfo).port;
};
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});

/** Says something over a connection, and hears what comes until it is closed. */
const opened = (port: number, said = ''): { socket: Socket; heard: Promise<string> } => {
  const socket = connect(port, '127.0.0.1', () => socket.write(said));
  const heard = new Promise<string>((resolve) => {
    let text = '';
    socket.on('data', (chunk) => (text += String(chunk)));
    socket.on('error', () => {});
    socket.on('close', () => resolve(text));
  });
  return { socket, heard };
};

it.each([
  ['a head that never ends', 'GET / HTTP/1.1\r\nHost: x\r\nX-Slow: a'],
  ['a body that never comes', 'POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 10\r\n'],
])('%s is cut, with a sentence', async (_, said) => {
  const port = await begin({ most: 10, headersMs: 100, requestMs: 100 });
  const text = await opened(port, said).heard;
  expect(text).toMatch(/^HTTP\/1.1 408 Request Timeout\r\n/);
  expect(text).toContain('The request took too long to come.');
  expect(text).toContain('X-Content-Type-Options: nosniff');
});

it('more connections than there may be are told so, and others served when some are gone', async () => {
  const port = await begin({ most: 3, headersMs: 60_000, requestMs: 60_000 });
  const held = [1, 2, 3].map(() => opened(port));
  await Promise.all(
    held.map(({ socket }) => new Promise((resolve) => socket.once('connect', resolve))),
  );
  const text = await opened(port, 'GET / HTTP/1.1\r\nHost: x\r\n\r\n').heard;
  expect(text).toMatch(/^HTTP\/1.1 503 Service Unavailable\r\n/);
  expect(text).toContain('Too many connections are open.');
  held[0]!.socket.destroy();
  await held[0]!.heard;
  let answer = '';
  // The server hears of it a moment later.
  while (!answer.includes('served')) {
    answer = await opened(port, 'GET / HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n').heard;
  }
});
