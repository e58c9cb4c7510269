/** What a page and a command line ask of the core: each line of the bench, for one build of it. */

/** One step of a hand: the movements are new, all else is the very same. */
const moved = (station) => ({ ...station, movements: { ...station.movements } });

/** A hall by a meter in the hand, in three exposures. */
const METERED = { meter: { time_s: 2, f_number: 8 }, brackets: { frames: 3, step_stops: 2 } };

/** Random scenes of so many marks about a table, both freedoms, circle and limits on. */
export function scenes(bench, count, marks) {
  let seed = 7;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  return Array.from({ length: count }, () => ({
    ...bench,
    solve: { tilt: true, swing: true },
    marks: Array.from({ length: marks }, (_, i) => ({
      label: `m${i}`,
      x_m: -0.15 + 0.3 * random(),
      y_m: 0.95 + 0.2 * random(),
      z_m: 0.85 + 0.8 * random(),
      must: 'sharp',
    })),
  }));
}

/**
 * @param core a build of packages/station
 * @param documents stations as files have them
 * @returns work and what it is done on, by name
 */
export function questions(core, documents) {
  const all = documents.map((document) => {
    const { solve: _, ...station } = core.parseStation(document).value;
    return station;
  });
  const bench = all.find(({ lens }) => lens.focal_length_mm === 110);
  const asked = (work) => [(station) => work(moved(station)), all];
  // Builds before sections were read one by one work out all of them.
  const reading = core.readingOf ?? core.readings;
  const mosaics = all.filter(({ mosaic }) => mosaic);
  return {
    'what Cover reads': asked((s) => {
      const { coverage, optics, facade } = reading(s);
      return [coverage, optics, facade];
    }),
    'readings, as JSON': asked((s) => JSON.stringify(core.readings(s))),
    'evaluate, as JSON': asked((s) => JSON.stringify(core.evaluate(s))),
    'six scales': asked(core.scalesOf),
    'Cover drawing': asked(core.coverDrawing),
    finder: asked((s) => core.finderOf(s)),
    'ways out': asked((s) => core.waysOut(s)),
    'framing ways': asked((s) => core.framingWays(s)),
    'solve 12 marks': [(s) => core.solveStation(s), scenes(bench, 60, 12)],
    'solve 200 marks': [(s) => core.solveStation(s), scenes(bench, 4, 200)],
    'mosaic report': [(s) => core.reportMosaic(s, s.mosaic), mosaics],
    'exposure report': asked((s) => core.exposureReport(s, METERED)),
    parse: [core.parseStation, documents],
    'a step of a hand': [(s) => core.editedStation(moved(s), s), all],
  };
}
