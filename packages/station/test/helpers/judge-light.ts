import type { Station } from '../../src/index.js';
import type { ExposureReport } from '../../src/exposure/report.js';
import type { Camera } from './hand.js';
import { root, type Traced } from './traced.js';

/** What light a camera that was set by hand lets in, against what its meter asked. */

const RAD = Math.PI / 180;

/** A film’s own answer to a long time. */
function reciprocal(
  timeS: number,
  { reciprocity }: NonNullable<Station['exposure']>,
): number | null {
  if (!reciprocity) return timeS;
  if (reciprocity.table === undefined) {
    const { exponent, from_s: from } = reciprocity;
    return timeS <= from ? timeS : from * (timeS / from) ** exponent;
  }
  const { table } = reciprocity;
  if (timeS < table[0]!.metered_s) return timeS;
  const next = table.findIndex(({ metered_s }) => metered_s >= timeS);
  if (next < 0) return timeS > table.at(-1)!.metered_s * 1.1 ? null : table.at(-1)!.given_s;
  if (next === 0) return table[0]!.given_s;
  const [a, b] = [table[next - 1]!, table[next]!];
  const share = Math.log(timeS / a.metered_s) / Math.log(b.metered_s / a.metered_s);
  return a.given_s * (b.given_s / a.given_s) ** share;
}

/** The exposure that a time comes to on the film: what of it was not lost. */
function onFilm(givenS: number, exposure: NonNullable<Station['exposure']>): number {
  const last = exposure.reciprocity?.table?.at(-1);
  if (last && givenS >= last.given_s) return last.metered_s * (givenS / last.given_s);
  const log = root((t) => (reciprocal(2 ** t, exposure) ?? Infinity) - givenS, -40, 60);
  return 2 ** log;
}

/** The f-number by which light gathers: what the cone of light to the sensor’s middle has. */
const acting = (traced: Traced): number =>
  (traced.behind * (traced.v + (traced.p - 1) * traced.f * traced.axis[2])) /
  ((traced.p * traced.f) / traced.n);

const THIRD = 1 / 3;

type Meter = NonNullable<NonNullable<Station['exposure']>['meter']>;

/** The time a meter said at a stop: by the placed spot, else halfway from the darkest to the brightest. */
function meterSaid(meter: Meter, read: number): number | undefined {
  const { time_s, spots } = meter;
  if (time_s !== undefined) return time_s;
  const placed = spots?.find(({ place_stops }) => place_stops !== undefined);
  const all = spots?.map(({ ev }) => ev) ?? [];
  const middle = spots ? (Math.min(...all) + Math.max(...all)) / 2 : undefined;
  const ev = meter.ev ?? (placed ? placed.ev - placed.place_stops! : middle);
  return ev === undefined ? undefined : read ** 2 / 2 ** ev;
}

/** Stops that the filters take that were put on. */
const takenBy = (camera: Camera, { filters = [] }: NonNullable<Station['exposure']>): number =>
  filters.reduce((sum, { stops }, i) => sum + (camera.filters.has(i) ? stops : 0), 0);

/** Sensitivity that was metered over the one used. */
const isoOver = ({ iso, meter }: NonNullable<Station['exposure']>): number =>
  (meter?.iso ?? iso ?? 1) / (iso ?? meter?.iso ?? 1);

export function exposureFaults(
  camera: Camera,
  planned: Station,
  traced: Traced,
  promisedTimes: number,
  told: string,
  looked: Set<string>,
): string[] {
  const { exposure } = planned;
  // Leaned further the middle of the picture is not what one f-number says of it.
  const steep = traced.axis[2] < Math.cos(12 * RAD);
  if (!exposure?.meter || promisedTimes === 0 || steep) return [];
  return timeFaults(camera, planned, exposure, traced, told, looked);
}

function timeFaults(
  camera: Camera,
  planned: Station,
  exposure: NonNullable<Station['exposure']>,
  traced: Traced,
  told: string,
  looked: Set<string>,
): string[] {
  const meter = exposure.meter!;
  const { compensation_stops: more = 0 } = exposure;
  const aperture = planned.held_off ? planned.lens.f_min : planned.aperture;
  const isoUsed = exposure.iso ?? meter.iso;
  if (isoUsed !== undefined && camera.iso !== null && Math.abs(camera.iso / isoUsed - 1) > 0.01) {
    return [`the sensitivity is ${camera.iso}, not ${isoUsed}`];
  }
  const read = meter.f_number ?? aperture;
  const meterS = meterSaid(meter, read);
  if (meterS === undefined) return [];
  // What a meter through the lens saw: the same draw, its own stop.
  const factor = acting(traced) / camera.iris;
  const readN = meter.through_lens ? read * factor : read;
  const put = takenBy(camera, exposure);
  const wantedS = meterS * (acting(traced) / readN) ** 2 * isoOver(exposure) * 2 ** (put + more);
  const { frames: count, step_stops: step } = exposure.brackets ?? { frames: 1, step_stops: 0 };
  const all = Array.from(
    { length: count },
    (_, i) => wantedS * 2 ** ((i - (count - 1) / 2) * step),
  );
  // Within a tenth of the end of a film’s table a hair of the stop decides whether there is a time.
  const end = exposure.reciprocity?.table?.at(-1)?.metered_s;
  if (end !== undefined && all.some((each) => Math.abs(Math.log2(each / end)) < 0.2)) return [];
  looked.add('exposure');
  return takenFaults(camera, exposure, all, told);
}

/** Each exposure of a bracket as it was taken, against what the meter asked. */
function takenFaults(
  camera: Camera,
  exposure: NonNullable<Station['exposure']>,
  all: readonly number[],
  told: string,
): string[] {
  const wanted = all.filter((each) => reciprocal(each, exposure) !== null);
  const given = camera.times.length > 1 ? camera.times.slice(1) : camera.times;
  if (given.length !== wanted.length) {
    return [`${given.length} exposures where ${wanted.length} were asked`];
  }
  // A dial of full steps comes no nearer than half of one; what it is off by is said.
  const near = exposure.shutter?.steps === 'full' ? 0.56 : THIRD;
  const said = Number(/([\d.]+) stops? (?:over|under)/.exec(told)?.[1] ?? 0);
  return wanted.flatMap((each, i) => {
    const off = Math.log2(onFilm(given[i]!, exposure) / each);
    return Math.abs(off) > Math.max(near, said + 0.06) + 1e-6
      ? [`exposure ${i}: ${off.toFixed(2)} stops off`]
      : [];
  });
}

/** What the flash gives, against what its meter asked; and the shutter open for it. */
export function flashFaults(
  camera: Camera,
  { exposure: set, held_off, lens, aperture }: Station,
  traced: Traced,
  { flash }: ExposureReport,
  looked: Set<string>,
): string[] {
  const reads = set?.meter?.f_number;
  if (!set?.flash || !flash || reads === undefined) return [];
  const faults = flash.pops === 1 ? syncFaults(camera, set, looked) : [];
  if (flash.over_stops > 0 || traced.axis[2] < Math.cos(12 * RAD)) return faults;
  looked.add('flash');
  const factor = acting(traced) / (held_off ? lens.f_min : aperture);
  const read = set.meter!.through_lens ? reads * factor : reads;
  const more = takenBy(camera, set) + (set.compensation_stops ?? 0);
  const metered = set.flash_power?.metered ?? 1;
  const wanted = metered * (acting(traced) / read) ** 2 * 2 ** more * isoOver(set);
  const pops = camera.pops.length > 1 ? camera.pops.slice(1) : camera.pops;
  const off = Math.log2(pops.reduce((a, b) => a + b, 0) / wanted);
  return Math.abs(off) > THIRD ? [...faults, `the flash is ${off.toFixed(2)} stops off`] : faults;
}

/** The shutter is open for all of the flash. */
function syncFaults(
  camera: Camera,
  { shutter }: NonNullable<Station['exposure']>,
  looked: Set<string>,
): string[] {
  const sync = shutter?.sync_s ?? (shutter?.kind === 'leaf' ? shutter.fastest_s : undefined);
  if (sync === undefined) return [];
  looked.add('sync');
  const off = Math.abs(Math.log2(camera.times.at(-1)! / sync));
  return off > 0.51 ? ['the shutter is not at its flash time'] : [];
}
