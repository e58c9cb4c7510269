import {
  backFrom,
  chainPartFrom,
  filterFrom,
  goesInChain,
  lensFrom,
  newRig,
  parseKitItem,
  parseRig,
  parseStation,
  settingsOf,
  stepped,
  withExposure,
  withFilm,
  withFilter,
  withRig,
  isWhole,
  parseLogged,
  plannedFor,
  type Exposure,
  type KitItem,
  type KitItemOf,
  type Kind,
  type Loaded,
  type Logged,
  type Rig,
  type Station,
  type Status,
  type Stored,
} from '@gangway/station';
import { eq } from 'drizzle-orm';
import { Router } from 'express';
import front from '../demo/1-customs-house-front.json' with { type: 'json' };
import bench from '../demo/2-glassblower-bench.json' with { type: 'json' };
import hall from '../demo/3-customs-house-hall.json' with { type: 'json' };
import ropewalk from '../demo/4-ropewalk.json' with { type: 'json' };
import marsh from '../demo/5-salt-marsh.json' with { type: 'json' };
import quay from '../demo/6-customs-house-quay.json' with { type: 'json' };
import ropemakers from '../demo/7-three-ropemakers.json' with { type: 'json' };
import beetle from '../demo/8-beetle-on-a-leaf.json' with { type: 'json' };
import wall from '../demo/9-ropewalk-wall.json' with { type: 'json' };
import ropewalkFrames from '../demo/10-ropewalk-frames.json' with { type: 'json' };
import ceiling from '../demo/11-hall-ceiling.json' with { type: 'json' };
import ring from '../demo/12-customs-house-ring.json' with { type: 'json' };
import watch from '../demo/13-watch-movement.json' with { type: 'json' };
import turned from '../demo/14-salt-marsh-turned.json' with { type: 'json' };
import kit from '../demo-kit/kit.json' with { type: 'json' };
import plans from '../demo-kit/rigs.json' with { type: 'json' };
import plannedDay from '../demo-day/day.json' with { type: 'json' };
import dayLog from '../demo-day/log.json' with { type: 'json' };
import type { Connection } from './database.js';
import { insertAll } from './documents/store.js';
import { KIT } from './kit.js';
import { storeLines } from './log.js';
import { RIGS } from './rigs.js';
import { STATIONS } from './stations.js';
import { jobs } from './tables.js';

const demoId = (series: string, index: number): string =>
  `${series}0000000-0000-4000-8000-${String(index).padStart(12, '0')}`;

const JOB = demoId('a', 1);
/** A day’s work: five of the stations with their exposures, in order. */
const DAY = demoId('a', 2);

/** Each station and the rig it was made with. */
const PLACES: readonly (readonly [unknown, string])[] = [
  [front, 'Shift 24 on the small body'],
  [bench, 'Macro tilt 110 on medium format'],
  [hall, 'Shift 19 on the small body'],
  [ropewalk, 'View 90 on the field camera'],
  [marsh, 'View 300 on 8×10 in'],
  [quay, 'Shift 24 on the small body'],
  [ropemakers, 'Tele view 360 on the field camera'],
  [beetle, 'Macro 100 on the tilt adapter'],
  [wall, 'Macro tilt 110 on medium format'],
  [ropewalkFrames, 'Medium 55 on the stitching adapter'],
  [ceiling, 'Medium 55 on the turning adapter'],
  [ring, 'Shift 19 on the small body'],
  [watch, 'Macro 100 on a stitching adapter'],
  [turned, 'Medium 55 on the stitching adapter'],
];

function sound<T>(
  what: string,
  read: { ok: true; value: T } | { ok: false; problems: unknown },
): T {
  if (read.ok) return read.value;
  throw new Error(`demo ${what}: ${JSON.stringify(read.problems)}`);
}

interface DayPlan {
  from: string;
  status: Status;
  /** What is set otherwise. */
  set?: Partial<Station>;
  /** By their names in the kit. */
  film?: string;
  exposure: Omit<Exposure, 'filters'> & { filters?: string[] };
}

interface Plan {
  name: string;
  lens: string;
  chain: string[];
  back: string;
  filter?: string;
}

export interface Demo {
  readonly items: readonly Stored[];
  readonly rigs: readonly { readonly id: string; readonly document: Rig }[];
  readonly stations: readonly { readonly id: string; readonly document: Station }[];
  readonly day: readonly {
    readonly id: string;
    readonly document: Station;
    readonly status: Status;
  }[];
  /** What was exposed that day. */
  readonly log: readonly Logged[];
  readonly films: readonly Loaded[];
}

interface LogPlan {
  at: string;
  station: number;
  frame?: number;
  bracket?: number;
  /** What was set otherwise than planned. */
  set?: Partial<Logged>;
  film?: Logged['film'];
  note?: string;
  kept?: boolean;
  rating?: number;
}

/** Kit, rigs assembled of it, and stations made with the rigs. */
export function readDemo(): Demo {
  const items = kit.items.map((item, i): Stored => ({
    id: demoId('b', i + 1),
    revision: 1,
    document: sound(`item ${i + 1}`, parseKitItem(item)),
  }));
  const named = (name: string): Stored => {
    const found = items.find(({ document }) => document.name === name);
    if (!found) throw new Error(`demo: there is no “${name}” in the kit`);
    return found;
  };
  const ofKind = <K extends Kind>(name: string, kind: K): Stored<KitItemOf<K>> => {
    const found = named(name);
    if (found.document.kind !== kind) throw new Error(`demo: “${name}” is no ${kind}`);
    return found as Stored<KitItemOf<K>>;
  };
  const rigs = (plans as Plan[]).map((plan, i) => {
    const lens = lensFrom(ofKind(plan.lens, 'lens'));
    const filter = plan.filter ? filterFrom(ofKind(plan.filter, 'filter'), lens) : null;
    if (filter && !filter.ok) throw new Error(`demo: ${filter.message}`);
    const chain = plan.chain.map((name) => {
      const stored = named(name);
      const { document }: { document: KitItem } = stored;
      if (!goesInChain(document)) throw new Error(`demo: “${name}” is no part of a chain`);
      return chainPartFrom({ ...stored, document });
    });
    const document = {
      ...newRig(plan.name),
      lens: filter ? { ...lens, filter: filter.value } : lens,
      chain,
      back: backFrom(ofKind(plan.back, 'back')),
    };
    return { id: demoId('c', i + 1), document: sound(`rig ${plan.name}`, parseRig(document)) };
  });
  const stations = PLACES.map(([document, rigName], i) => {
    const rig = rigs.find((each) => each.document.name === rigName)?.document;
    if (!rig || !isWhole(rig)) throw new Error(`demo: no rig “${rigName}”`);
    const station = withAlternatives(
      withRig(sound(`station ${i + 1}`, parseStation(document)), rig),
    );
    return { id: demoId('a', 101 + i), document: sound(`station ${i + 1}`, parseStation(station)) };
  });
  const day = (plannedDay as DayPlan[]).map(({ from, status, film, exposure, set: changed }, i) => {
    const found = stations.find(({ document }) => document.name === from);
    if (!found) throw new Error(`demo: no station “${from}”`);
    const { filters = [], ...set } = exposure;
    const { variants: _, ...station } = found.document;
    const bare = withExposure({ ...station, ...changed }, set);
    const loaded = film === undefined ? bare : withFilm(bare, ofKind(film, 'film'));
    const document = filters.reduce((now, name): Station => {
      const next = withFilter(now, ofKind(name, 'filter'));
      if (typeof next === 'string') throw new Error(`demo: ${next}`);
      return next;
    }, loaded);
    return {
      id: demoId('a', 201 + i),
      status,
      document: sound(`day ${i + 1}`, parseStation(document)),
    };
  });
  const log = (dayLog.lines as LogPlan[]).map((plan, i) => logLine(day, plan, i));
  return { items, rigs, stations, day, log, films: dayLog.films as Loaded[] };
}

/** One line as the card would have made it, and what was changed on the spot. */
function logLine(day: Demo['day'], plan: LogPlan, index: number): Logged {
  const { at, station, frame, bracket, set, ...more } = plan;
  const { id, document } = day[station]!;
  const which = { frame: frame ?? null, bracket: bracket ?? null };
  const line = {
    id: demoId('d', index + 1),
    station: id,
    at: `${dayLog.date}T${at}${dayLog.offset}`,
    planned: set === undefined,
    ...plannedFor(document, which),
    ...set,
    ...more,
  };
  return sound(`log line ${index + 1}`, parseLogged(line));
}

/** The customs house from the quay does not fit as it is; two ways to take it lie beside it. */
function withAlternatives(station: Station): Station {
  if (station.name !== quay.name) return station;
  const back = stepped(station, 2.4);
  if (!back) throw new Error('demo: no room to step back on the quay');
  const kept = (name: string, changed: Station, rise_mm: number) => ({
    name,
    settings: settingsOf({ ...changed, movements: { ...changed.movements, rise_mm } }),
  });
  const upright = { ...station, back: { ...station.back, orientation: 'portrait' as const } };
  return {
    ...station,
    variants: {
      present: 'Level, from the quay',
      kept: [kept('Upright', upright, 8.4), kept('Further back', back, 10.9)],
    },
  };
}

/**
 * The demo job and the demo kit, each once: what is there, changed or archived, is left alone.
 * @returns the id of the job
 */
export async function loadDemo({ transact }: Connection): Promise<string> {
  const demo = readDemo();
  const start = Date.now();
  const made = <T extends { id: string; document: object }>(each: T, i: number) => ({
    id: each.id,
    document: each.document,
    created_at: new Date(start + i),
  });
  await transact(async (query) => {
    const [any] = await query('select 1 from kit_items limit 1', []);
    if (!any) {
      await insertAll(query, KIT, demo.items.map(made));
      await insertAll(query, RIGS, demo.rigs.map(made));
    }
    const added = await query(
      'insert into jobs (id, name) values ($1, $2) on conflict do nothing returning id',
      [JOB, 'Orrin Quay'],
    );
    if (added.length === 0) return;
    const stations = demo.stations.map(made).map((each) => ({ ...each, job_id: JOB }));
    await insertAll(query, STATIONS, stations);
    await query(
      'insert into jobs (id, name, films) values ($1, $2, $3::jsonb) on conflict do nothing',
      [DAY, 'A day in October', JSON.stringify(demo.films)],
    );
    const day = demo.day.map((each, i) => ({ ...made(each, i), status: each.status, job_id: DAY }));
    await insertAll(query, STATIONS, day);
    await storeLines(
      query,
      DAY,
      demo.log.map((document) => ({ id: document.id, document, position: null, deleted: false })),
    );
  });
  return JOB;
}

/** Brings the demo in when it is asked for, out of the archive too. */
export function demoRoutes(connection: Connection): Router {
  const router = Router();
  router.post('/', async (_request, response) => {
    const job = await loadDemo(connection);
    await connection.db.update(jobs).set({ archivedAt: null }).where(eq(jobs.id, job));
    response.status(201).json({ job });
  });
  return router;
}
