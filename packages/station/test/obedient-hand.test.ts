import fc from 'fast-check';
import { ordersOf, type Order, type Station } from '../src/index.js';
import { tried } from './helpers/judge.js';
import { handWorlds } from './helpers/hand-worlds.js';
import { table } from './helpers/table-top.js';
import { atLength } from '../../../scripts/lib/runs.mjs';

/** Whatever is printed, set by a hand that knows nothing else, gives the picture that was promised. */

const units = fc.constantFrom('metric' as const, 'feet' as const);

/** Frames that focus anew, and those of a turning adapter, which are judged by its stop alone. */
const byFrames = (
  { id, sets }: Order,
  orders: readonly Order[],
  looked: ReadonlySet<string>,
): boolean => {
  const kinds = new Set<string>(sets.map(({ control: { kind } }) => kind));
  const again = orders.some(
    ({ part, sets: its }) =>
      part === 'frames' && its.some(({ control: { kind } }) => kinds.has(kind)),
  );
  return id.startsWith('focus') ? again : id === 'rest' && looked.has('pinwheel');
};

/** Where somebody else left the controls: in one of two places an order may be done already. */
const LEFT = [1, 2.37];

/** What is exposed is judged where a meter said something; the rest is promised always. */
const promised = ({ id, sets }: Order, looked: ReadonlySet<string>): boolean =>
  // A filter that takes next to nothing is missed by nobody.
  (!id.startsWith('filter') || sets[0]!.to! > 0.7) &&
  (/^(filter|time)/.test(id)
    ? looked.has('exposure') || (looked.has('flash') && !id.startsWith('time'))
    : id !== 'flash' || looked.has('flash'));

describe('the obedient hand', () => {
  it('gets what was promised, on rigs of every kind', () => {
    const seen = new Map<string, number>();
    fc.assert(
      fc.property(handWorlds, units, (planned, each) => {
        const { faults, looked } = tried(planned, { units: each });
        for (const what of looked) seen.set(what, (seen.get(what) ?? 0) + 1);
        expect(faults).toEqual([]);
      }),
      { numRuns: atLength ? 5000 : 300 },
    );
    // It looked at something of everything.
    for (const what of [
      'frame',
      'frame of many',
      'mark',
      'plane',
      'exposure',
      'held',
      'pinwheel',
    ]) {
      expect([what, seen.get(what) ?? 0]).toEqual([what, expect.any(Number)]);
      expect(seen.get(what) ?? 0).toBeGreaterThan(3);
    }
  });

  it('misses every single order that is kept from it', () => {
    const kept = new Map<string, number>();
    fc.assert(
      fc.property(handWorlds, units, (planned, each) => {
        const { faults, looked } = tried(planned, { units: each });
        fc.pre(faults.length === 0 && !looked.has('cannot be set, and is told so'));
        const { orders } = ordersOf(planned, each);
        for (const order of orders) {
          if (order.sets.length === 0 || !promised(order, looked)) continue;
          if (byFrames(order, orders, looked)) continue;
          const missed = LEFT.some(
            (off) => tried(planned, { units: each, without: order.id, off }).faults.length > 0,
          );
          if (!missed) {
            throw new Error(`nobody missed: ${order.id}, ${order.says} ${order.figure ?? ''}`);
          }
          const kind = order.id.replace(/[ _\d].*/, '');
          kept.set(kind, (kept.get(kind) ?? 0) + 1);
        }
      }),
      { numRuns: atLength ? 400 : 60 },
    );
    for (const kind of [
      'height',
      'back',
      'level',
      'straight',
      'focus',
      'stop',
      'frame',
      'move',
      'time',
    ]) {
      expect([kind, kept.get(kind) ?? 0]).not.toEqual([kind, 0]);
    }
  });

  it('finds nothing sharp where the plane’s distance is printed for the ring’s reading', () => {
    const leaned = table({ tilt_deg: 8.13 });
    expect(tried(leaned).faults).toEqual([]);
    const asPlane = (order: Order, planned: Station): Order =>
      order.id === 'focus'
        ? {
            ...order,
            sets: order.sets.map((set) => ({ ...set, said: `${planned.focus.distance_m} m` })),
          }
        : order;
    expect(tried(leaned, { heard: asPlane }).faults.join()).toMatch(/mark .*: a blur of 1\d\d/);
  });
});
