import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { at, ROOT } from './paths.mjs';

const isRoot = process.getuid?.() === 0;

/** A program's user and group by name. */
export function userNamed(name) {
  const id = (flag) => Number(execFileSync('id', [flag, name], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

/** Runs a program as the user that owns the data: PostgreSQL refuses to run as root. */
export const dataOwner = () => (isRoot ? userNamed('postgres') : {});

/** In the project, unless the postgres user may not come in (a checkout below /root). */
export function dataHome(name, as) {
  const inside = at('.data');
  mkdirSync(inside, { recursive: true });
  const reachable =
    as.uid === undefined ||
    spawnSync('test', ['-x', inside], { uid: as.uid, gid: as.gid }).status === 0;
  if (reachable) return join(inside, name);
  const mark = createHash('sha256').update(ROOT).digest('hex').slice(0, 12);
  return join('/var/lib/gangway', mark, name);
}

/**
 * A folder that was copied may belong to somebody else, who then owns the database.
 * @throws with the command that mends it
 */
export function requireOwner(home, as) {
  if (!existsSync(home)) return;
  const uid = as.uid ?? process.getuid?.();
  if (uid === undefined) return;
  const { stdout } = spawnSync('find', [home, '!', '-user', String(uid), '-print', '-quit'], {
    encoding: 'utf8',
  });
  const foreign = stdout.trim();
  if (foreign) {
    const mend = isRoot
      ? `chown -R postgres:postgres ${home}`
      : `sudo chown -R ${userInfo().username} ${home}`;
    throw new Error(
      `The data folder does not belong to the user the database runs as (${foreign} belongs to ` +
        `another). Nothing was changed. Run\n    ${mend}\nand start again.`,
    );
  }
  // A copy is often readable by all, which PostgreSQL refuses.
  if (existsSync(join(home, 'pg'))) chmodSync(join(home, 'pg'), 0o700);
}
