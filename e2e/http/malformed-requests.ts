import { Agent, request } from 'node:http';
import { randomOf } from '../../packages/station/test/helpers/mutations.js';

/** Requests as nobody should send them, over all routes; what must hold is that none is a fault of ours. */

const agent = new Agent({ keepAlive: true, maxSockets: 16 });

interface Sent {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: Buffer;
}

const ROUTES = [
  '/api/jobs',
  '/api/jobs/:id',
  '/api/jobs/:id/duplicate',
  '/api/jobs/:id/stations',
  '/api/jobs/:id/stations/free-name',
  '/api/stations/:id',
  '/api/stations/:id/duplicate',
  '/api/stations/:id/revisions',
  '/api/stations/:id/revisions/:n',
  '/api/kit',
  '/api/kit/:id',
  '/api/kit/:id/duplicate',
  '/api/kit/:id/used-by',
  '/api/kit/imports/:id',
  '/api/rigs',
  '/api/rigs/:id',
  '/api/rigs/:id/duplicate',
  '/api/nothing',
  '/assets/:id',
  '/jobs/:id',
  '/:id',
];

const ODD_PARTS = [
  '%', '%E0%A4%A', '%00', '..%2f..%2fetc%2fpasswd', '%ff', 'null', '-1', '1e9', '%F0%9F%98%80', '%ED%A0%80',
  '0'.repeat(300), "'%20or%201=1--", '%7B%7D', '.', '..', '%2e%2e', ' ', 'A0000000-0000-4000-8000-000000000101',
]; // prettier-ignore

const ODD_QUERIES = [
  'offset=-1', 'offset=x', 'limit=1e99', 'limit=501', 'limit=', 'offset=%00', 'offset[]=1', 'archived=%FF',
  'stem=', 'stem=%00', 'stem=%F0%9F', 'stem=' + 'x'.repeat(200), 'before=0', 'before=99999999999', '__proto__[a]=1',
  'archived=true&archived=false', 'stem[a]=1', '=', '&&&', '%', 'stem=%25', 'stem=(%5B',
]; // prettier-ignore

const ODD_BODIES: readonly (string | Buffer)[] = [
  '', '{', 'null', '[]', '"text"', '12', '{"id":1}', '{"name":"\\u0000"}', '{"name":"ha\\ud83dlf"}', '{"name":{}}',
  '{"document":null}', '{"document":[]}', '{"baseRevision":1e400,"document":{}}', '{"baseRevision":-1}',
  '{"__proto__":{"x":1},"name":"a"}', '{"constructor":{"prototype":{}}}', '{"archived":"yes"}',
  '{"items":[{"id":"x"}],"changes":{}}', '{"items":[null]}', '{"id":"not-a-uuid","name":"x"}',
  `{"name":"${'x'.repeat(5000)}"}`, `${'['.repeat(20_000)}`, `{"a":${'{"a":'.repeat(500)}1${'}'.repeat(500)}}`,
  Buffer.from([0xff, 0xfe, 0x00]), Buffer.from('{"name":"\xff\xfe"}', 'latin1'), Buffer.alloc(3000, 0x80),
]; // prettier-ignore

const ODD_HEADERS: readonly Record<string, string>[] = [
  { 'Content-Type': 'text/plain' },
  { 'Content-Type': 'application/json; charset=utf-7' },
  { 'Content-Type': 'application/json; charset=utf-16' },
  { 'Content-Encoding': 'gzip' },
  { 'Content-Encoding': 'br' },
  { 'Content-Encoding': 'deflate' },
  { 'Content-Encoding': 'nonsense' },
  { Origin: 'http://elsewhere.example' },
  { Origin: 'null' },
  { Host: 'elsewhere.example' },
  { 'X-Request-Id': 'x'.repeat(100) },
  { 'If-None-Match': '"x"' },
  { Range: 'bytes=5-1' },
  { 'Accept-Encoding': 'x'.repeat(3000) },
  { 'Content-Type': '' },
];

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS', 'TRACE', 'PROPFIND'];

/** What the server has, to come near to what it takes. */
export interface Known {
  readonly ids: readonly string[];
  readonly document: Record<string, unknown>;
}

export function malformed(index: number, seed: number, { ids, document }: Known): Sent {
  const random = randomOf(seed + index * 7919);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const part = (): string =>
    random() < 0.5 ? pick(ids) : encodeURI(pick(ODD_PARTS)).replaceAll('%25', '%');
  const path = pick(ROUTES)
    .replaceAll(/:id/g, part)
    .replace(':n', () => (random() < 0.5 ? '1' : part()));
  const query = random() < 0.4 ? `?${pick(ODD_QUERIES)}` : '';
  const near = (): string => {
    const keys = Object.keys(document);
    const spoilt = { ...document, [pick(keys)]: pick([null, 0, -1, 'x', [], {}, 1e308]) };
    return JSON.stringify({
      id: random() < 0.5 ? pick(ids) : crypto.randomUUID(),
      baseRevision: pick([1, 0, 2, 1e9]),
      document: random() < 0.3 ? document : spoilt,
      name: pick(['x', '', ' ', 5]),
      archived: pick([true, 'no', null]),
    });
  };
  const body = Buffer.from(random() < 0.4 ? near() : (pick(ODD_BODIES) as string));
  return {
    method: pick(METHODS),
    path: path + query,
    headers: {
      'Content-Type': 'application/json',
      ...(random() < 0.35 ? pick(ODD_HEADERS) : {}),
    },
    body,
  };
}

/** @returns the status, and the sentence of a refusal; 0 where the connection was closed on it */
export function sendRaw(
  address: string,
  { method, path, headers, body }: Sent,
): Promise<{ status: number; type: string; text: string }> {
  const { hostname, port } = new URL(address);
  return new Promise((resolve) => {
    const takesBody = !['GET', 'HEAD', 'OPTIONS', 'TRACE'].includes(method);
    const sent = request(
      {
        agent,
        hostname,
        port,
        method,
        path,
        headers: takesBody ? { ...headers, 'Content-Length': body.length } : headers,
      },
      (response) => {
        const parts: Buffer[] = [];
        response.on('data', (chunk: Buffer) => parts.push(chunk));
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            type: response.headers['content-type'] ?? '',
            text: Buffer.concat(parts).toString('utf8'),
          }),
        );
      },
    );
    sent.on('error', () => resolve({ status: 0, type: '', text: '' }));
    sent.end(takesBody ? body : undefined);
  });
}
