import { dragged } from './bench-page.mjs';
import { manyFrames } from './bench-mosaic.mjs';
import { scenes } from './core-questions.mjs';

/** The fourteen things a hand drags most, each for two seconds. */
export async function measureDrags(page, address, job, list, say) {
  const found = [];
  const drag = async (...names) => {
    for (const name of names) found.push(await dragged(page, name, say));
  };
  const named = (part) => list.find(({ document }) => document.name.includes(part)) ?? list[0];
  const open = async (station, path) =>
    page.goto(`${address}/jobs/${job.id}/stations/${station.id}/${path}`);
  const begun = async (document, path) => {
    const made = await fetch(`${address}/api/jobs/${job.id}/stations`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ document }),
    });
    await open(await made.json(), path);
  };
  await open(named('hall'), 'cover');
  await drag('Rise', 'Centre of the frame');
  // On a rig that tilts.
  await open(named('three bottles'), 'cover');
  await drag('Tilt');
  // The largest site of the demo, by hand in each of its drawings.
  await open(named('Ropewalk'), 'view');
  await drag('Tool cupboard', 'Tool cupboard, from the side', 'Camera, from above');
  await open(named('Ropewalk'), 'cover');
  await drag('Centre of the frame');
  await open(named('quay'), 'view');
  await drag('Façade, from above', 'Top of the façade');
  // A mark, the plane and the lens in a section, the settings following; then two hundred marks.
  const { document } = named('three bottles');
  await begun({ ...document, solve: { tilt: true, swing: true, follow: true } }, 'focus');
  await page.getByText('marks, set so').waitFor();
  await drag('Rim, from the side', 'Plane of sharp focus', 'Lens, tilt');
  await begun({ ...document, ...sceneOf(document) }, 'focus');
  await page.getByText('marks, set so').waitFor();
  await drag('m7, from the side');
  await begun(manyFrames(), 'mosaic');
  await drag('Frame 20');
  const slow = found.filter(
    ({ medianMs, mostMs, workMs, tasks }) =>
      medianMs > 17 || mostMs > 25 || workMs > 8 || tasks > 0,
  );
  say(`${found.length - slow.length} of ${found.length} drags keep up with every frame`);
}

function sceneOf(document) {
  const [{ marks, solve }] = scenes(document, 1, 200);
  return { marks, solve };
}
