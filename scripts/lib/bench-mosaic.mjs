import { performance } from 'node:perf_hooks';

/** What a Mosaic promises: layouts reported quickly, offers within a second, a smooth drag. */

const BACK = { width_mm: 36, height_mm: 24, width_px: 8256, height_px: 5504 };

/** A straight 55 mm lens with room, its back moved as given. */
const station = (movement_limits, mosaic) => ({
  format: 'gangway.station',
  version: 1,
  name: 'Bench of layouts',
  back: { ...BACK, orientation: 'landscape' },
  lens: {
    focal_length_mm: 55,
    f_min: 3.5,
    f_max: 22,
    circle: [{ f_number: 3.5, diameter_mm: 92 }],
  },
  chain: [],
  movement_limits: { moves: 'rear', ...movement_limits },
  aperture: 8,
  focus: { distance_m: 9 },
  movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
  camera: { height_m: 1.6, pitch_deg: 0, yaw_deg: 0 },
  criterion: { coc_mm: 0.03 },
  site: { room: { length_m: 30, width_m: 6, ceiling_m: 4, behind_m: 1, left_m: 3 } },
  mosaic,
});

/** Forty free frames, five rows of eight, each nudged a little. */
export const manyFrames = () =>
  station(
    {},
    {
      pattern: 'free',
      moves: 'rear',
      places: Array.from({ length: 40 }, (_, i) => ({
        x_mm: ((i % 8) - 3.5) * 5 + (i % 3) / 3,
        y_mm: (Math.floor(i / 8) - 2) * 5 + (i % 5) / 5,
      })),
    },
  );

const SLIDE = { frame_stops: { columns: 7, rows: 7, pitch_mm: [6, 6] } };
const RANGES = { rise_mm: [-20, 20], shift_mm: [-20, 20] };

const WISHES = [
  ['7 × 7 sliding back, fill', SLIDE, { fill: 'covered' }],
  ['7 × 7 sliding back, 100 MP', SLIDE, { megapixels: 100 }],
  ['7 × 7 sliding back, 500 MP (none)', SLIDE, { megapixels: 500 }],
  ['±20 mm anywhere, fill', RANGES, { fill: 'covered' }],
  ['±20 mm on 1 mm detents, fill', { ...RANGES, detent_mm: 1 }, { fill: 'covered' }],
];

/** @param of the bundled station package */
export function measureLayouts({ offersOf, reportMosaic, parseStation }, say, rate) {
  const many = parseStation(manyFrames()).value;
  say(
    `a report of 40 free frames:          ${rate((s) => reportMosaic(s, s.mosaic), [many])} a second`,
  );
  for (const [name, limits, wish] of WISHES) {
    const asked = parseStation(
      station(limits, { pattern: 'grid', moves: 'rear', overlap: 0.3, wish }),
    ).value;
    let best = Infinity;
    for (let round = 0; round < 3; round++) {
      const begin = performance.now();
      offersOf(asked);
      best = Math.min(best, performance.now() - begin);
    }
    say(`offers, ${name}:`.padEnd(49) + `${best.toFixed(0)} ms (1,000 allowed)`);
  }
}

/** A wish answered by its worker. */
export async function measureMosaicPage(page, { api, base, say }) {
  const begun = async (document, path) => {
    const response = await fetch(api, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ document }),
    });
    const { id } = await response.json();
    await page.goto(`${base}/${id}/${path}`);
  };
  const wished = { pattern: 'grid', moves: 'rear', overlap: 0.3, columns: 1, rows: 1 };
  await begun(station(SLIDE, wished), 'mosaic/wish');
  const fill = page.getByRole('button', { name: 'Fill the circle' });
  await fill.waitFor();
  const begin = performance.now();
  await fill.click();
  await page.getByText('Layouts that give it').waitFor();
  await page.getByText('Looking for layouts').waitFor({ state: 'hidden' });
  say(
    `a wish on a 7 × 7 sliding back, press to answer:`.padEnd(49) +
      `${(performance.now() - begin).toFixed(0)} ms (1,000 allowed)`,
  );
}
