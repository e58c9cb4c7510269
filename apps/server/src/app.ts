import { randomBytes } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { ServerResponse } from 'node:http';
import { join } from 'node:path';
import express, { type Express, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Config } from './config.js';
import type { Changes } from './changes.js';
import type { Connection } from './database.js';
import { demoRoutes } from './demo.js';
import { documentRoutes, listRoutes } from './documents/routes.js';
import { jsonBody, type Bounds } from './bodies.js';
import { guard } from './guard.js';
import { everyAnswer } from './headers.js';
import { historyRoutes } from './history.js';
import { fewAtOnce } from './heavy.js';
import { importRoutes } from './kit-imports.js';
import { jobFileRoutes } from './job-files/routes.js';
import { jobRoutes } from './jobs.js';
import { KIT, usedByRoutes } from './kit.js';
import { logRoutes } from './log.js';
import { requestLog } from './logging.js';
import { errorHandler, Refusal } from './problems.js';
import { RIGS } from './rigs.js';
import { placeRoutes, STATIONS, stationsOfJob } from './stations.js';

const nonceOf = (response: ServerResponse): string => String((response as Response).locals.nonce);

export interface State {
  ready: boolean;
  stopping: boolean;
}

/** A station is at most 2 MB; a save wraps it in a few more bytes. */
const A_CHANGE: Bounds = { what: 'The request', bytes: 2_200_000, depth: 50, members: 250_000 };
/** An import comes in parts of a few thousand items. */
const AN_IMPORT: Bounds = {
  what: 'This part of an import',
  bytes: 12_000_000,
  depth: 50,
  members: 1_000_000,
};

/** Answers that are no page need none of what a page is given: they run nothing and frame nothing. */
const ANSWER_HEADERS: readonly (readonly [string, string])[] = [
  ['Cache-Control', 'no-store'],
  ['Content-Security-Policy', "default-src 'none'; frame-ancestors 'none'"],
  ['Cross-Origin-Resource-Policy', 'same-origin'],
];

const answering =
  (state: State): RequestHandler =>
  (_request, response, next) => {
    // Before its tables are there nothing can be answered; what was accepted before a stop is.
    if (!state.ready && !state.stopping) throw new Refusal(503, 'The server is starting.');
    for (const [name, value] of ANSWER_HEADERS) response.setHeader(name, value);
    next();
  };

/** The HTTP interface: jobs, stations, kit, rigs. */
function apiRoutes(connection: Connection, changes: Changes, state: State): express.Router {
  const api = express.Router();
  api.use(answering(state));
  const heavy = fewAtOnce();
  // It reads its own body, however large.
  api.use('/job-files', heavy, jobFileRoutes(connection));
  api.use('/kit/imports', heavy, jsonBody(AN_IMPORT));
  api.use(jsonBody(A_CHANGE));
  // What is asked for most comes first.
  api.use('/stations', documentRoutes(connection, STATIONS));
  api.use('/stations', placeRoutes(connection));
  api.use('/jobs', jobRoutes(connection));
  api.use('/jobs/:job/stations', stationsOfJob(connection));
  api.use('/jobs/:job/log', logRoutes(connection));
  api.use('/kit/imports', importRoutes(connection));
  api.use('/kit', usedByRoutes(connection));
  for (const [path, kind] of [
    ['/kit', KIT],
    ['/rigs', RIGS],
  ] as const) {
    api.use(path, listRoutes(connection, kind));
    api.use(path, documentRoutes(connection, kind));
  }
  api.use('/history', historyRoutes(connection, [STATIONS, RIGS]));
  api.use('/demo', demoRoutes(connection));
  api.use('/changes', changes.routes);
  api.use(() => {
    throw new Refusal(404, 'There is nothing at this address.');
  });
  return api;
}

export function makeApp(
  config: Config,
  connection: Connection,
  changes: Changes,
  log: Logger,
  state: State,
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.disable('etag');
  app.use(everyAnswer);
  app.use(requestLog(log));
  app.use(guard(config.mayAsk));
  app.use('/api', apiRoutes(connection, changes, state));
  app.use((_request, response, next) => {
    (response as Response).locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          // Dialogs add a sheet while they hold the page still; it carries the page's nonce.
          styleSrc: ["'self'", (_request, response) => `'nonce-${nonceOf(response)}'`],
          // Radix and the drawings set positions in style attributes.
          styleSrcAttr: ["'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      // Served over plain HTTP on loopback; a proxy in front may add it.
      strictTransportSecurity: false,
    }),
  );

  app.get('/healthz', (_request, response) => {
    response.json({ name: 'gangway', status: 'alive' });
  });
  app.get('/readyz', async (_request, response) => {
    if (!state.ready) throw new Refusal(503, 'The server is starting or stopping.');
    await connection.ready();
    response.json({ status: 'ready' });
  });

  app.use((request, _response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') return next();
    throw new Refusal(405, 'Pages are only read; changes are taken under /api.');
  });
  app.use(
    '/assets',
    express.static(join(config.webFolder, 'assets'), {
      immutable: true,
      maxAge: '1y',
      fallthrough: false,
    }),
  );
  app.use(express.static(config.webFolder, { index: false }));
  app.get('/{*page}', async (_request, response) => {
    const page = await readFile(join(config.webFolder, 'index.html'), 'utf8');
    response.setHeader('Cache-Control', 'no-store');
    const filled = page
      .replace('%STYLE_NONCE%', nonceOf(response))
      .replace('%LISTENS%', config.open ? 'beyond' : 'loopback');
    response.type('html').send(filled);
  });
  app.use(errorHandler(log));
  return app;
}
