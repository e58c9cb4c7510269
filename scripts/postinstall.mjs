import { buildCli } from './lib/build.mjs';
import { markInstalled } from './lib/install.mjs';

// So that `npx gangway` works as soon as packages are there.
await buildCli();
markInstalled();
