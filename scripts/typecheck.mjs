import { spawnSync } from 'node:child_process';
import { at, ROOT } from './lib/paths.mjs';

const PROJECTS = [
  'packages/optics',
  'packages/optics/test',
  'packages/station',
  'packages/station/test',
  'apps/cli',
  'apps/cli/test',
  'apps/server',
  'apps/server/test',
  'apps/web',
  'apps/web/test',
  'e2e',
];

let failed = false;
for (const project of PROJECTS) {
  const { status } = spawnSync(
    process.execPath,
    [at('node_modules/typescript/bin/tsc'), '-p', at(project)],
    {
      cwd: ROOT,
      stdio: 'inherit',
    },
  );
  if (status !== 0) failed = true;
}
process.exit(failed ? 1 : 0);
