import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const isRoot = process.getuid?.() === 0;

/** The newest folder that has a program of PostgreSQL's, Debian's places first; null: none. */
function folderOf(program) {
  const base = '/usr/lib/postgresql';
  if (existsSync(base)) {
    const versions = readdirSync(base)
      .filter((version) => existsSync(join(base, version, 'bin', program)))
      .sort((a, b) => Number(b) - Number(a));
    if (versions[0]) return join(base, versions[0], 'bin');
  }
  const { stdout } = spawnSync('sh', ['-c', `command -v ${program}`], { encoding: 'utf8' });
  const found = stdout.trim();
  return found ? found.slice(0, -program.length - 1) : null;
}

/** Installs Debian packages when this user may. @returns false when it may not or it failed */
export function aptInstall(packages, say) {
  const has = spawnSync('sh', ['-c', 'command -v apt-get']).status === 0;
  const sudo = isRoot ? [] : ['sudo', '-n'];
  if (!has || (!isRoot && spawnSync('sudo', ['-n', 'true']).status !== 0)) return false;
  say(`Installing ${packages.join(', ')} …`);
  const apt = (...args) => {
    const [command, ...rest] = [
      ...sudo,
      'env',
      'DEBIAN_FRONTEND=noninteractive',
      'apt-get',
      ...args,
    ];
    return spawnSync(command, rest, { stdio: ['ignore', 'ignore', 'inherit'] }).status === 0;
  };
  apt('update', '-qq');
  return apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
}

function required(program, what, say) {
  const found = folderOf(program);
  if (found) return found;
  if (aptInstall([what], say)) {
    const installed = folderOf(program);
    if (installed) return installed;
  }
  return null;
}

/** Where the programs of a database server are. @throws when they are missing, with the cure */
export function requireBinaries(say) {
  const found = required('initdb', 'postgresql', say);
  if (found) return found;
  throw new Error(
    'PostgreSQL is missing and cannot be installed from here. Run\n' +
      '    sudo apt-get install postgresql\n' +
      'or set DATABASE_URL to a server of your own, then start again.',
  );
}

/** Where `pg_dump`, `pg_restore` and `psql` are. @throws when they are missing, with the cure */
export function requireTools(say) {
  const found = required('pg_dump', 'postgresql-client', say);
  if (found) return found;
  throw new Error(
    'Backups are made by PostgreSQL’s own programs, which are missing. Run\n' +
      '    sudo apt-get install postgresql-client',
  );
}
