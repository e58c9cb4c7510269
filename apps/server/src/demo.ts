import { parseStation } from '@gangway/station';
import front from '../demo/1-customs-house-front.json' with { type: 'json' };
import bench from '../demo/2-glassblower-bench.json' with { type: 'json' };
import hall from '../demo/3-customs-house-hall.json' with { type: 'json' };
import ropewalk from '../demo/4-ropewalk.json' with { type: 'json' };
import marsh from '../demo/5-salt-marsh.json' with { type: 'json' };
import type { Database } from './database.js';
import { insertStation } from './jobs.js';
import { jobs } from './tables.js';

const JOB = 'a0000000-0000-4000-8000-000000000001';

const stationId = (index: number): string =>
  `a0000000-0000-4000-8000-${String(101 + index).padStart(12, '0')}`;

/** The demo job, once: a database that has it, changed or archived, is left alone. */
export async function loadDemo(db: Database): Promise<void> {
  await db.transaction(async (tx) => {
    const added = await tx
      .insert(jobs)
      .values({ id: JOB, name: 'Orrin Quay' })
      .onConflictDoNothing()
      .returning({ id: jobs.id });
    if (added.length === 0) return;
    const start = Date.now();
    for (const [index, document] of [front, bench, hall, ropewalk, marsh].entries()) {
      const read = parseStation(document);
      if (!read.ok) throw new Error(`demo station ${index}: ${JSON.stringify(read.problems)}`);
      await insertStation(tx, stationId(index), JOB, read.value, new Date(start + index));
    }
  });
}
