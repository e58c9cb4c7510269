import { evaluate, isWhole, kitIdsIn, rigStation, stationUpdate } from '@gangway/station';
import { readDemo } from '../src/demo.js';

describe('the demo', () => {
  const demo = readDemo();
  const codes = new Set<string>(
    demo.rigs.flatMap(({ document }) =>
      isWhole(document)
        ? evaluate(rigStation(document)).rig.problems.map(({ code }) => code as string)
        : [],
    ),
  );

  it('every station uses a rig of the kit, up to date with it', () => {
    for (const { document } of [...demo.stations, ...demo.day]) {
      expect(document.lens.origin).toBeDefined();
      expect(document.back.origin).toBeDefined();
      const ids = kitIdsIn(document);
      expect(demo.items.filter(({ id }) => ids.includes(id))).toHaveLength(ids.length);
      const find = (id: string) => demo.items.find((item) => item.id === id);
      expect(stationUpdate(document, find).updates).toEqual([]);
    }
  });

  it.each([
    'mount_mismatch',
    'register_no_room',
    'no_infinity',
    'bellows_too_long',
    'focus_by_wire',
    'iris_stuck',
    'circle_small',
    'converter_clips',
    'ring_cuts',
    'front_heavy',
    'open_shutter',
  ])('has a rig for %s', (code) => {
    expect(codes).toContain(code);
  });

  it('has rigs that simply work, and one long chain', () => {
    const sound = demo.rigs.filter(
      ({ document }) =>
        isWhole(document) && evaluate(rigStation(document)).rig.problems.length === 0,
    );
    expect(sound.length).toBeGreaterThanOrEqual(4);
    expect(Math.max(...demo.rigs.map(({ document }) => document.chain.length))).toBe(4);
  });
});
