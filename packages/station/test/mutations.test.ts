import { readdirSync, readFileSync } from 'node:fs';
import { notFinite } from '../src/index.js';
import { drawnStations, runMutations, type Seeds } from './helpers/mutations.js';

const read = (path: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../../apps/server/${path}`, import.meta.url), 'utf8'));

const folder = new URL('../../../apps/server/demo/', import.meta.url);
const stations = readdirSync(folder).map((name) => read(`demo/${name}`)) as Record<
  string,
  unknown
>[];

const seeds: Seeds = {
  stations: [...stations, ...drawnStations(40, 7)],
  jobs: [
    {
      format: 'gangway.job',
      version: 1,
      name: 'A day',
      stations: stations.slice(0, 3).map((document, i) => ({
        id: `d0000000-0000-4000-8000-00000000000${i}`,
        document,
      })),
      exposures: [],
    },
  ],
  rigs: stations.map(({ name, lens, chain, back, aperture }) => ({
    format: 'gangway.rig',
    version: 1,
    ...{ name, lens, chain, back, aperture },
  })),
  items: (read('demo-kit/kit.json') as { items: unknown[] }).items,
};

const SEED = 20_260_601;
const COUNT = 1000;

// Twenty thousand go through in every run, beside the unit tests: scripts/mutate.mjs.
describe('a thousand spoilt documents', () => {
  it('each is refused with a sentence, or all that is worked out from it is finite', () => {
    const { taken, refused, found } = runMutations(seeds, COUNT, SEED);
    expect(found.slice(0, 3)).toEqual([]);
    // The test is worth something only while many come through, and many do not.
    expect(taken).toBeGreaterThan(COUNT / 10);
    expect(refused).toBeGreaterThan(COUNT / 10);
  });

  it('a fault would be found: a number that is none, and a refusal without a sentence', () => {
    expect(notFinite({ a: [1, { b: Infinity }] })).toBe('/a/1/b: Infinity');
    expect(notFinite({ a: [1, null, 'x'] })).toBeNull();
  });
});
