import { Router } from 'express';
import * as z from 'zod';
import type { Connection } from './database.js';
import type { Kind } from './documents/kind.js';
import { accept, afterStoring } from './problems.js';
import { whole } from './requests.js';
import { historyOf, setHistory, thin, wouldGo } from './thinning.js';

const LEAST_WHOLE = 20;
const MOST_WHOLE = 100_000;

const asked = z.object({ whole: whole(LEAST_WHOLE, MOST_WHOLE, 0).optional() });
const set = z.object({
  thin: z.boolean({ error: 'must be true or false' }),
  whole: z
    .number({ error: `must be a whole number from ${LEAST_WHOLE} to ${MOST_WHOLE}` })
    .int()
    .min(LEAST_WHOLE)
    .max(MOST_WHOLE),
});

/** How long saves are kept: as it is set, and what a setting would take away before it is chosen. */
export function historyRoutes(connection: Connection, kinds: readonly Kind[]): Router {
  const { query } = connection;
  const router = Router();

  router.get('/', async (request, response) => {
    const now = await historyOf(query);
    const { whole: tried = now.whole } = accept(asked, request.query);
    response.json({ ...now, tried, would: await wouldGo(query, kinds, tried) });
  });

  router.put('/', async (request, response) => {
    const history = accept(set, request.body);
    await setHistory(query, history);
    const gone = history.thin ? await afterStoring(() => thin(connection, kinds)) : 0;
    response.json({ ...history, gone });
  });

  return router;
}
