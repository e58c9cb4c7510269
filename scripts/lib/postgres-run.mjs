import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { requireTools } from './postgres-programs.mjs';

/** What PostgreSQL's programs are told of a database by the environment, which others cannot read. */
export function environmentOf(url) {
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  const part = (text) => decodeURIComponent(text);
  return {
    LC_ALL: 'C.UTF-8',
    PGHOST: part(searchParams.get('host') ?? hostname),
    PGPORT: port || '5432',
    PGUSER: part(username),
    PGPASSWORD: part(password),
    PGDATABASE: part(pathname.slice(1)),
  };
}

/** Runs a program of PostgreSQL's on a database. @returns what it says @throws with what it complains of */
export function run(program, url, args, say, more = {}) {
  const { status, stdout, stderr, error } = spawnSync(join(requireTools(say), program), args, {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
    env: { ...process.env, ...environmentOf(url) },
    ...more,
  });
  if (status !== 0) {
    throw new Error(`${program} failed:\n${error?.message ?? String(stderr).trim().slice(-2000)}`);
  }
  return stdout;
}
