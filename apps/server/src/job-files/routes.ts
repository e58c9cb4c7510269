import { createHash } from 'node:crypto';
import { Router } from 'express';
import * as z from 'zod';
import type { Connection, Query } from '../database.js';
import { bytesOf } from '../bodies.js';
import { accept } from '../problems.js';
import { idSchema } from '../requests.js';
import { movedOn, planFor, tokenOf } from './plan.js';
import { A_JOB, readJob, withNewIds } from './read.js';
import { sendJob } from './send.js';
import { takeIn } from './take.js';

/** Whole jobs as files: written out piece by piece, looked at before they are taken in. */

const asked = z.object({
  /** What a new job is to be called by: asked again after a lost answer it is made once. */
  job: idSchema,
  ids: z.enum(['keep', 'new']).default('keep'),
  /** What was looked at before; left out: only look. */
  seen: z.string().max(100).optional(),
});

export function jobFileRoutes(connection: Connection): Router {
  const { query, transact } = connection;
  const router = Router();

  router.get('/:id', async (request, response) => {
    await sendJob(query, response, accept(idSchema, request.params.id));
  });

  router.post('/', async (request, response) => {
    const { job: newId, ids, seen } = accept(asked, request.query);
    const sum = createHash('sha256');
    const bytes = await bytesOf(request, A_JOB, (chunk) => sum.update(chunk));
    const read = await readJob(bytes);
    const file = ids === 'new' ? withNewIds(read) : read;
    const hash = sum.digest('hex');
    response.json(
      await transact(async (within) => {
        const there = ids === 'new' ? await ownOf(within, newId) : null;
        if (there) return { taken: true, job: { id: newId, name: there, isNew: true } };
        const plan = await planFor(within, file, newId);
        const token = await tokenOf(plan, hash);
        if (seen === undefined) return { taken: false, token, ...plan.shown };
        if (seen !== token) throw movedOn();
        await takeIn(within, file, plan);
        return { taken: true, job: plan.shown.job };
      }),
    );
  });

  return router;
}

async function ownOf(query: Query, id: string): Promise<string | null> {
  const [row] = await query<{ name: string }>('select name from jobs where id = $1', [id]);
  return row?.name ?? null;
}
