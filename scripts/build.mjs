import { buildCli, buildServer, buildWeb } from './lib/build.mjs';

const BUILDS = { cli: buildCli, server: buildServer, web: buildWeb };

const wanted = process.argv.slice(2);
for (const name of wanted.length > 0 ? wanted : Object.keys(BUILDS)) {
  if (!BUILDS[name]) {
    console.error(`There is no “${name}” to build; there are ${Object.keys(BUILDS).join(', ')}.`);
    process.exit(2);
  }
  await BUILDS[name]();
}
