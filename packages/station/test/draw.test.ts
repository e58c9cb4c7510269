import {
  distanceMarks,
  drawCurve,
  drawnForDistance,
  drawnTo,
  drawRange,
  evaluate,
  hasBed,
  ratioMarks,
  ratioSaid,
  setDraw,
  stopMarks,
  timeDrawnTo,
} from '../src/index.js';
import { station } from './helpers/mosaic.js';

/** A 150 mm lens on a bellows of 60 to 400 mm: what the tape on its bed has to say. */

const view = station({
  lens: { focal_length_mm: 150, f_max: 45, flange_focal_mm: 145 },
  chain: [{ kind: 'view_camera', bellows_min_mm: 60, bellows_max_mm: 400 }],
  focus: { distance_m: 2 },
});

describe('drawing a lens out', () => {
  it('to life size takes its focal length once more, costs two stops and stands at four of them', () => {
    // Ray, Applied Photographic Optics, 3rd ed., 2002.
    const life = drawnTo(view, 1);
    expect(life.extensionMm).toBeCloseTo(150, 9);
    expect(life.drawMm).toBeCloseTo(295, 9);
    expect(life.distanceM).toBeCloseTo(0.6, 9);
    expect(life.stops).toBeCloseTo(2, 9);
  });

  it('at infinity stands at the flange focal distance and costs nothing', () => {
    expect(drawnTo(view, 0)).toMatchObject({
      extensionMm: 0,
      drawMm: 145,
      distanceM: null,
      stops: 0,
    });
  });

  it('110 mm, subject 1 m from the film: read as half a stop (common practice, no source), exactly 0.39', () => {
    const macro = station({
      lens: { focal_length_mm: 110, f_max: 45 },
      chain: [{ kind: 'view_camera', bellows_min_mm: 60, bellows_max_mm: 400 }],
    });
    expect(drawnForDistance(macro, 1)!.stops).toBeCloseTo(0.39, 2);
  });

  it('agrees with the station’s own report, focused there', () => {
    for (const m of [0.1, 0.5, 1.2]) {
      const { focus } = evaluate({ ...view, focus: { magnification: m } });
      const point = drawnTo(view, m);
      expect(point.stops).toBeCloseTo(focus.bellows_stops!, 12);
      expect(point.magnification).toBeCloseTo(focus.magnification, 12);
      expect(point.extensionMm).toBeCloseTo(focus.extension_mm, 9);
    }
    expect(setDraw(view).distanceM).toBeCloseTo(2, 9);
  });

  it('ends where the bellows end, and says where nobody gave an end', () => {
    expect(drawRange(view)).toMatchObject({ known: true, least: 0 });
    expect(drawCurve(view).at(-1)!.drawMm).toBeCloseTo(400, 6);
    expect(drawRange(station({}))).toMatchObject({ known: false, greatest: 0.25 });
    expect(hasBed(station({}))).toBe(false);
  });

  it('only goes one way: farther out is nearer until life size, and always darker', () => {
    const curve = drawCurve(view);
    curve.slice(1).forEach((point, i) => {
      expect(point.stops).toBeGreaterThan(curve[i]!.stops);
      expect(point.extensionMm).toBeGreaterThan(curve[i]!.extensionMm);
    });
  });
});

describe('what a tape is marked with', () => {
  it('round distances in the units in use, infinity first', () => {
    const metric = distanceMarks(view).map(({ distanceM }) => distanceM);
    expect(metric[0]).toBeNull();
    expect(metric.some((each) => each !== null && Math.abs(each - 5) < 1e-6)).toBe(true);
    const feet = distanceMarks(view, 'feet').map(
      ({ distanceM }) => distanceM && distanceM / 0.3048,
    );
    expect(feet.slice(1).every((each) => Math.abs(each! * 4 - Math.round(each! * 4)) < 1e-6)).toBe(
      true,
    );
  });

  it('thirds of a stop, and ratios that people set', () => {
    stopMarks(view).forEach(({ stops }, i) => expect(stops).toBeCloseTo((i + 1) / 3, 9));
    expect(ratioMarks(view).map(({ magnification }) => ratioSaid(magnification))).toEqual([
      ...['1:20', '1:10', '1:8', '1:6', '1:5', '1:4', '1:3', '1:2', '1:1.5', '1:1', '1.5:1'],
    ]);
  });

  it('the time at each draw has the film’s own answer', () => {
    const film = {
      ...view,
      exposure: { meter: { time_s: 1, f_number: 8 }, reciprocity: { exponent: 1.31, from_s: 1 } },
    };
    expect(timeDrawnTo(film, 0)).toBeCloseTo(1, 9);
    // Four times the light at life size: 4^1.31.
    expect(timeDrawnTo(film, 1)).toBeCloseTo(4 ** 1.31, 6);
    expect(timeDrawnTo(view, 1)).toBeNull();
  });
});
