import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { at, ROOT } from './paths.mjs';
import { aptInstall } from './postgres-programs.mjs';

const MARK = at('node_modules/.gangway-lock');

const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(at('package-lock.json')))
    .digest('hex');

/** Notes which lock the installed packages belong to. */
export function markInstalled() {
  mkdirSync(at('node_modules'), { recursive: true });
  writeFileSync(MARK, lockHash());
}

/** Installs the packages the lock names, unless that was done for this very lock. */
export function ensurePackages(say) {
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === lockHash()) return;
  say('Installing packages …');
  const run = (program, args) =>
    spawnSync(program, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] }).status;
  // No package runs a script of its own; those that are needed are ours, and run by name.
  const quiet = ['--no-audit', '--no-fund', '--loglevel=error'];
  if (run('npm', ['ci', '--ignore-scripts', ...quiet]) !== 0) {
    throw new Error('npm ci failed; see above.');
  }
  if (run(process.execPath, [at('scripts/postinstall.mjs')]) !== 0) {
    throw new Error('The command line could not be built; see above.');
  }
  markInstalled();
}

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** The browser the interface tests drive: Debian's Chromium, or the one CHROMIUM names. */
export function ensureChromium(say) {
  const named = process.env.CHROMIUM;
  const find = () => [named, ...PLACES].find((place) => place && existsSync(place));
  const found = find();
  if (found) return found;
  if (aptInstall(['chromium'], say)) {
    const installed = find();
    if (installed) return installed;
  }
  throw new Error(
    'Chromium is missing and cannot be installed from here. Run\n' +
      '    sudo apt-get install chromium\n' +
      'or set CHROMIUM to its program, then start again.',
  );
}
