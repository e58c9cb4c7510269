import assert from 'node:assert/strict';
import fc from 'fast-check';
import {
  changesBetween,
  framingWays,
  fStop,
  markWays,
  parseStation,
  readings,
  standingOf,
  stateOf,
  waysOut,
  type Station,
} from '../../src/index.js';
import { framedWell } from '../../src/facade/verdict.js';
import { parsed, stations } from './rigs.js';
import { within } from './worlds.js';

/**
 * What must hold of every way out, over drawn stations. It asks with node’s own `assert`, so that it
 * also runs without the test runner, which is several times as slow.
 */

/** How each setting is called where a way speaks of it; written here, apart from the words themselves. */
const SPOKEN: readonly (readonly [RegExp, (after: Station, title: string) => RegExp])[] = [
  [/^\/movements\/rise_mm/, () => /rise|fall|Raise|Lower|lift|drop|Ease (to|the back)/i],
  [/^\/movements\/shift_mm/, () => /shift|Ease (to|the back)/i],
  [/^\/movements\/tilt_deg/, () => /tilt|lean/i],
  [/^\/movements\/swing_deg/, () => /swing|lean/i],
  [/^\/aperture/, (after) => new RegExp(fStop(after.aperture).replace('.', '\\.'))],
  [/^\/back\/orientation/, ({ back }) => (back.orientation === 'portrait' ? /upright/ : /level/)],
  [/^\/camera\/height_m/, () => /Raise the camera|Lower the camera/],
  [/^\/camera\/pitch_deg/, () => /Point the camera/],
  [/^\/crop/, ({ crop }) => (crop ? /Crop to/ : /not cropped/)],
  [/^\/mosaic/, ({ mosaic }) => (mosaic ? /frames/ : /one frame/)],
  // What stands in front comes no nearer by itself: it is the camera that steps.
  [/^\/(facade|site|marks)/, () => /Step (back|closer)/],
  [/^\/focus/, () => /focus|draw/],
];

interface Offer {
  readonly title: string;
  readonly detail: string;
  readonly after: Station;
}

function saysAll(before: Station, { title, detail, after }: Offer): void {
  for (const pointer of Object.keys(changesBetween(before, after))) {
    const [, words] = SPOKEN.find(([of]) => of.test(pointer)) ?? [];
    assert.ok(words, `nothing names ${pointer} in “${title}; ${detail}”`);
    assert.match(`${title}; ${detail}`, words(after, title));
  }
}

/** None of the ways that come next leads back to where this one came from. */
function leadsOn(before: Station, after: Station): void {
  for (const next of waysOut(after)) {
    assert.notDeepEqual(changesBetween(before, next.after), {}, `${next.title} leads back`);
  }
}

/** A hand can set it: the turning lens has an angle for what is asked. */
function byHand(before: Station, after: Station): void {
  if (readings(before).turning?.reached === false) return;
  assert.ok(readings(after).turning?.reached ?? true, 'no angle does it');
}

const turning = fc.constantFrom(
  {},
  { radial_shift_mm: 12, turn_stops_deg: [0, 30, 60, 90] },
  { radial_shift_mm: 12, radial_tilt_deg: 8, shift_tilt: 'crossed', one_way_tilt: true },
);

interface Drawn {
  readonly station: Station;
  readonly turns: object;
  readonly away: number;
  readonly wide: number;
  readonly high: number;
  readonly marks: readonly (readonly [number, number])[];
}

/** Sizes go by what the lens pictures at that distance: shares of the sensor’s width. */
function sceneOf({ station, turns, away, wide, high, marks }: Drawn): Station {
  const f = station.lens.focal_length_mm;
  const distance_m = (away * f) / 1000;
  const size = (share: number): number => (share * station.back.width_mm * distance_m) / f;
  return parsed({
    ...station,
    movement_limits: { ...station.movement_limits, ...turns },
    facade: { distance_m, width_m: size(wide), top_m: 1.6 + size(high), base_m: 0 },
    marks: marks.map(([x, y], i) => ({
      label: `M${i}`,
      x_m: size(x),
      y_m: 1.6 + size(y),
      z_m: distance_m,
      must: 'sharp',
    })),
  });
}

const drawn = {
  station: stations(),
  turns: turning,
  wide: within(0.4, 1.4),
  high: within(0.3, 1.2),
  away: within(150, 1500),
};

const scenes = fc
  .record({
    ...drawn,
    marks: fc.array(fc.tuple(within(-0.8, 0.8), within(-0.5, 0.8)), { maxLength: 2 }),
  })
  .map(sceneOf);

/** Marks near the edge of the frame, inside it or out. */
const marked = fc
  .record({
    ...drawn,
    marks: fc.array(fc.tuple(within(-0.62, 0.62), within(-0.55, 0.55)), {
      minLength: 1,
      maxLength: 2,
    }),
  })
  .map(sceneOf);

function cornersHold(station: Station): void {
  const before = stateOf(station);
  for (const way of waysOut(station)) {
    const after = stateOf(way.after);
    if (before === 'soft') assert.equal(after, 'sharp', way.title);
    else assert.notEqual(standingOf(after), 'outside', way.title);
    assert.ok(parseStation(way.after).ok, way.title);
    saysAll(station, way);
    byHand(station, way.after);
    leadsOn(station, way.after);
  }
}

function marksHold(station: Station): boolean {
  const ways = markWays(station);
  for (const way of ways) {
    assert.ok(
      readings(way.after).marks!.every(({ in_frame }) => in_frame),
      way.title,
    );
    assert.notEqual(standingOf(stateOf(way.after)), 'outside', way.title);
    saysAll(station, way);
    byHand(station, way.after);
    assert.deepEqual(markWays(way.after), [], way.title);
    leadsOn(station, way.after);
  }
  return ways.length > 0;
}

/** And no way out of a soft corner takes the framing back. */
function framingHolds(station: Station): boolean {
  const ways = framingWays(station);
  for (const way of ways) {
    assert.ok(framedWell(way.after), way.title);
    saysAll(station, way);
    byHand(station, way.after);
    assert.deepEqual(framingWays(way.after), [], way.title);
    if (way.after.mosaic || stateOf(way.after) !== 'soft') continue;
    for (const next of waysOut(way.after)) assert.ok(framedWell(next.after), next.title);
  }
  return ways.length > 0;
}

const onlyWhereOffered =
  (holds: (station: Station) => boolean) =>
  (station: Station): void =>
    fc.pre(holds(station));

/** Each kind of trouble, with what must hold of its ways over drawn stations that have any. */
export const WAYS_HOLD = {
  'ways out of a corner': fc.property(scenes, cornersHold),
  'ways to get marks into the frame': fc.property(marked, onlyWhereOffered(marksHold)),
  'ways to frame a façade': fc.property(scenes, onlyWhereOffered(framingHolds)),
};

/** Runs all of them on so many stations each. */
export const runWays = (
  numRuns: number,
  seed: number,
): { readonly name: string; readonly tried: number; readonly fault: string | null }[] =>
  Object.entries(WAYS_HOLD).map(([name, property]) => {
    const {
      failed,
      errorInstance,
      counterexample,
      numRuns: tried,
    } = fc.check(property, {
      numRuns,
      seed,
      maxSkipsPerRun: 1000,
    });
    return {
      name,
      tried,
      fault: failed ? `${String(errorInstance)}\n${JSON.stringify(counterexample)}` : null,
    };
  });
