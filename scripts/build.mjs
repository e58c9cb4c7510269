import { buildCli, buildServer, buildWeb, ensureBuilt } from './lib/build.mjs';

const BUILDS = { cli: buildCli, server: buildServer, web: buildWeb };

const wanted = process.argv.slice(2);
if (wanted.length === 0) {
  await buildCli();
  await ensureBuilt(() => {});
}
for (const name of wanted) {
  if (!BUILDS[name]) {
    console.error(`There is no “${name}” to build; there are ${Object.keys(BUILDS).join(', ')}.`);
    process.exit(2);
  }
  await BUILDS[name]();
}
