import { randomBytes, randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { ServerResponse } from 'node:http';
import { join } from 'node:path';
import express, { type Express, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Config } from './config.js';
import type { Connection } from './database.js';
import { guard } from './guard.js';
import { importRoutes } from './kit-imports.js';
import { jobRoutes } from './jobs.js';
import { kitRoutes } from './kit.js';
import { handleErrors, Refusal } from './problems.js';
import { rigRoutes } from './rigs.js';
import { stationRoutes, stationsOfJob } from './stations.js';

const nonceOf = (response: ServerResponse): string => String((response as Response).locals.nonce);

/** A station is at most 2 MB; a save wraps it in a few more bytes. */
const LARGEST_BODY = '2200kb';
/** An import comes in parts of a few thousand items. */
const LARGEST_IMPORT = '12mb';

const REQUEST_ID = /^[\w-]{1,64}$/;

export function makeApp(
  config: Config,
  connection: Connection,
  log: Logger,
  state: { ready: boolean },
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    pinoHttp({
      logger: log,
      genReqId: (request, response) => {
        const given = request.headers['x-request-id'];
        const id = typeof given === 'string' && REQUEST_ID.test(given) ? given : randomUUID();
        response.setHeader('X-Request-Id', id);
        return id;
      },
      customLogLevel: (request, response, error) => {
        // Those who wait for readiness ask again and again; that it is not there yet is no error.
        if (request.url === '/readyz' || request.url === '/healthz') return 'debug';
        if (error || response.statusCode >= 500) return 'error';
        return response.statusCode >= 400 ? 'info' : 'debug';
      },
      serializers: {
        req: ({ id, method, url }: { id: string; method: string; url: string }) => ({
          id,
          method,
          url,
        }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  );
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
  app.use(guard(config.allowedHosts));

  app.get('/healthz', (_request, response) => {
    response.json({ name: 'gangway', status: 'alive' });
  });
  app.get('/readyz', async (_request, response) => {
    if (!state.ready) throw new Refusal(503, 'The server is starting or stopping.');
    await connection.ready();
    response.json({ status: 'ready' });
  });

  const api = express.Router();
  api.use('/kit/imports', express.json({ limit: LARGEST_IMPORT, strict: false }));
  api.use(express.json({ limit: LARGEST_BODY, strict: false }));
  api.use((_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  api.use('/jobs', jobRoutes(connection.db));
  api.use('/jobs/:job/stations', stationsOfJob(connection.db));
  api.use('/stations', stationRoutes(connection.db));
  api.use('/kit/imports', importRoutes(connection.db));
  api.use('/kit', kitRoutes(connection.db));
  api.use('/rigs', rigRoutes(connection.db));
  api.use(() => {
    throw new Refusal(404, 'There is nothing at this address.');
  });
  app.use('/api', api);

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
    response.type('html').send(page.replace('%STYLE_NONCE%', nonceOf(response)));
  });
  app.use(handleErrors);
  return app;
}
