import { houseFaults } from './lib/cruise.mjs';
import { ROOT } from './lib/paths.mjs';

/** Holds the order of folders and forbids circles of files: see scripts/lib/house.mjs. */
const faults = await houseFaults(['packages', 'apps'], ROOT);
for (const fault of faults) console.error(fault);
process.exit(faults.length === 0 ? 0 : 1);
