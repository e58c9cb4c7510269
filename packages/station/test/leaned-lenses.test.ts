import { readFileSync } from 'node:fs';
import { evaluate, parseStation, type Report, type Station } from '../src/index.js';

interface Case {
  note: string;
  station: unknown;
  least_f_number?: number;
  at?: [number, number];
  want?: Record<string, unknown>;
}

const { cases } = JSON.parse(
  readFileSync(new URL('./fixtures/leaned-lenses.json', import.meta.url), 'utf8'),
) as { cases: Case[] };

const read = (beginning: string): { station: Station; report: Report; given: Case } => {
  const given = cases.find(({ note }) => note.startsWith(beginning))!;
  // One bellows there is longer than any that a station may have.
  const text = JSON.stringify(given.station).replace('100000', '20000');
  const parsed = parseStation(JSON.parse(text));
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.problems));
  return { station: parsed.value, report: evaluate(parsed.value), given };
};

const stops = ({ rig }: Report) => rig.problems.filter(({ severity }) => severity === 'stop');

// Source of the figures: rays traced through a leaned thin lens, without the closed forms.
describe('leaned lenses against a ray trace', () => {
  const searched = cases.filter((each) => each.least_f_number !== undefined);

  it.each(searched)('$note: the least stop and where it is', ({ note, least_f_number, at }) => {
    const { solution } = read(note).report;
    expect(solution!.possible).toBe(true);
    expect(solution!.within_limits).toBe(true);
    // They were found on a grid: what is found here may be a hair better, never worse.
    expect(solution!.f_number! / least_f_number!).toBeLessThan(1.0005);
    expect(solution!.f_number! / least_f_number!).toBeGreaterThan(0.99);
    expect(Math.hypot(solution!.tilt_deg! - at![0], solution!.swing_deg! - at![1])).toBeLessThan(
      0.6,
    );
  });

  it('a bellows of 330 mm is never drawn past 330 mm', () => {
    const { solution } = read('bellows to 330 mm').report;
    expect(solution!.bed_mm!).toBeLessThanOrEqual(330 + 1e-9);
    expect(solution!.image_distance_mm!).toBeLessThanOrEqual(330 + 1e-9);
  });

  it('a lens at its infinity stop and half a millimetre out is in reach, leaned too', () => {
    expect(stops(read('extension 0.5 mm').report)).toEqual([]);
  });

  it('a lens past its stops is told by how much, leaned or not', () => {
    const { station } = read('extension 0.5 mm');
    const at = (image_distance_mm: number, rear_tilt_deg?: number): string => {
      const movements = { ...station.movements, ...(rear_tilt_deg ? { rear_tilt_deg } : {}) };
      const set = { ...station, movements, focus: { image_distance_mm } };
      return stops(evaluate(set))[0]?.message ?? '';
    };
    expect(at(89.5)).toMatch(/lens 0\.50 mm further in than this rig lets it/);
    expect(at(89.5, 5)).toMatch(/0\.50 mm further in/);
    expect(at(90)).toBe('');
    expect(at(90, 5)).toBe('');
  });

  it('draw behind a converter gives the extension over the combined focal length', () => {
    const { report, given } = read('converter on the lens');
    expect(report.rig.largest_magnification).toBeCloseTo(
      given.want!['rig.largest_magnification'] as number,
      10,
    );
    expect(stops(report).length).toBeGreaterThan(0);
    expect(stops(report)[0]!.code).toBe('bellows_too_short');
  });

  it('standards move before the combined lens, whether or not they are named', () => {
    const { station, report } = read('the same, the view camera naming no movement');
    const named: Station = {
      ...station,
      chain: station.chain.map((part) =>
        part.kind === 'view_camera' ? { ...part, movement: { moves: 'front' as const } } : part,
      ),
    };
    expect(report.coverage.limits).toEqual(evaluate(named).coverage.limits);
    // 210 mm with a circle of 1.4 × 230 mm, focused at 5 m: R = v C / 2F on a sheet of 36 × 24 mm.
    const v = (5000 - Math.sqrt(5000 ** 2 - 4 * 5000 * 210)) / 2;
    const radius = (v * 1.4 * 230) / (2 * 210);
    expect(report.coverage.limits.rise_mm).toBeCloseTo(Math.sqrt(radius ** 2 - 18 ** 2) - 12, 8);
  });

  it('near and far lie about the distance set on a bellows behind a converter', () => {
    const { report } = read('converter before the movements');
    expect(report.marks![0]!.holds).toBe(true);
    expect(report.focus.near_m!).toBeLessThan(1.2);
    expect(report.focus.far_m!).toBeGreaterThan(1.2);
  });

  it('the pivot moves the lens, not the sensor', () => {
    const { report } = read('the lens tilts about a pivot');
    expect(report.marks![0]!.f_number_needed).toBeCloseTo(55.5, 1);
  });

  it('a back leans about its own middle', () => {
    const { report, given } = read('the back leaned 10 degrees');
    const want = given.want as Record<string, number>;
    expect(report.coverage.margin_mm).toBeCloseTo(want['coverage.margin_mm']!, 9);
    expect(report.coverage.limits.left_mm).toBeCloseTo(want['coverage.limits.left_mm']!, 9);
    expect(report.field.up_deg).toBeCloseTo(want['field.up_deg']!, 9);
  });
});
