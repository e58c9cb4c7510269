import { ensureChromium } from './lib/install.mjs';
import { requireBinaries } from './lib/postgres-programs.mjs';

/** Fetches one thing the tests need, where it is missing: beside what needs nothing of it. */
const TOOLS = { postgresql: requireBinaries, chromium: ensureChromium };

try {
  TOOLS[process.argv[2]](console.log);
} catch {
  // Whoever needs it says what is missing, with the cure.
}
