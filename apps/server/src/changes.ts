import { Router, type Response } from 'express';
import pg from 'pg';
import { APPLICATION } from './database.js';
import { sendProblem, Refusal } from './problems.js';

/**
 * What is changed in the database, by whichever process, is told to every page that listens:
 * LISTEN on the one side, server-sent events on the other. Only which row and which revision;
 * a page asks for what it wants to see.
 */
export interface Changes {
  readonly routes: Router;
  readonly close: () => Promise<void>;
}

const CHANNEL = 'gangway_changes';
const AGAIN_MS = 1_000;
/** A proxy that sees nothing for a minute may cut the stream. */
const BEAT_MS = 20_000;
/** Changes of one moment go out as one event: an import tells of thousands. */
const GATHER_MS = 25;
const MOST_STREAMS = 500;

/** The page looks anew at all it shows: what came before, or while nobody listened, is not known. */
const ANEW = 'event: anew\ndata: {}\n\n';

export function listen(databaseUrl: string, onCut: (error: unknown) => void): Changes {
  const streams = new Set<Response>();
  let waiting: string[] = [];
  let gathering: NodeJS.Timeout | undefined;
  let closed = false;
  let client: pg.Client | null = null;
  let hearing = false;

  const tell = (text: string): void => {
    for (const stream of streams) stream.write(text);
  };
  const flush = (): void => {
    gathering = undefined;
    tell(`data: [${waiting.join(',')}]\n\n`);
    waiting = [];
  };
  const beat = setInterval(() => tell(': still here\n\n'), BEAT_MS);
  beat.unref();

  async function attend(): Promise<void> {
    while (!closed) {
      const own = new pg.Client({
        connectionString: databaseUrl,
        application_name: APPLICATION,
        keepAlive: true,
      });
      client = own;
      const ended = new Promise<void>((resolve) => {
        own.on('error', () => resolve());
        own.on('end', () => resolve());
      });
      own.on('notification', ({ payload }) => {
        if (!payload) return;
        waiting.push(payload);
        gathering ??= setTimeout(flush, GATHER_MS);
      });
      try {
        await own.connect();
        await own.query(`listen ${CHANNEL}`);
        hearing = true;
        tell(ANEW);
        await ended;
      } catch (error) {
        if (!closed) onCut(error);
      }
      hearing = false;
      await own.end().catch(() => {});
      if (!closed) await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    }
  }
  const attending = attend();

  const routes = Router();
  routes.get('/', (_request, response) => {
    if (closed || streams.size >= MOST_STREAMS) {
      sendProblem(response, new Refusal(503, 'No more pages can listen for changes.'));
      return;
    }
    response.setHeader('Content-Type', 'text/event-stream');
    response.setHeader('X-Accel-Buffering', 'no');
    response.flushHeaders();
    // Before the database is heard a look would tell nothing; then all are told to look.
    response.write(hearing ? `retry: ${AGAIN_MS}\n${ANEW}` : `retry: ${AGAIN_MS}\n\n`);
    streams.add(response);
    response.on('close', () => streams.delete(response));
  });

  return {
    routes,
    close: async () => {
      closed = true;
      clearInterval(beat);
      clearTimeout(gathering);
      for (const stream of streams) stream.end();
      await client?.end().catch(() => {});
      await attending;
    },
  };
}
