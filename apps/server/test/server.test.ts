import type { Request, Response } from 'express';
import * as z from 'zod';
import { readConfig } from '../src/config.js';
import { isDatabaseAway } from '../src/database.js';
import { guard } from '../src/guard.js';
import { copyName, nameSchema } from '../src/jobs.js';
import { accept, Refusal } from '../src/problems.js';

const SOUND = { DATABASE_URL: 'postgres://x', WEB_FOLDER: '/web', MIGRATIONS_FOLDER: '/sql' };

describe('configuration', () => {
  it('listens on loopback unless told otherwise', () => {
    const config = readConfig(SOUND);
    expect(config).toMatchObject({ host: '127.0.0.1', port: 4170, logLevel: 'info' });
    expect([...config.allowedHosts]).toEqual(['localhost', '127.0.0.1', '[::1]']);
  });

  it('takes further host names', () => {
    const { allowedHosts } = readConfig({ ...SOUND, ALLOWED_HOSTS: 'Studio.local, ,van' });
    expect(allowedHosts.has('studio.local')).toBe(true);
    expect(allowedHosts.has('van')).toBe(true);
    expect(allowedHosts.has('')).toBe(false);
  });

  it.each([
    [{ WEB_FOLDER: '/web', MIGRATIONS_FOLDER: '/sql' }, 'DATABASE_URL'],
    [{ ...SOUND, PORT: 'many' }, 'PORT'],
    [{ ...SOUND, PORT: '70000' }, 'PORT'],
    [{ ...SOUND, LOG_LEVEL: 'loud' }, 'LOG_LEVEL'],
    [{ ...SOUND, DEMO: 'perhaps' }, 'DEMO'],
  ])('names the variable that does not serve: %j', (env, name) => {
    expect(() => readConfig(env)).toThrow(name);
  });
});

describe('names of copies', () => {
  it('number themselves and never repeat', () => {
    const taken = new Set(['Pier']);
    for (const expected of ['Pier (copy)', 'Pier (copy 2)', 'Pier (copy 3)']) {
      const made = copyName('Pier', taken);
      expect(made).toBe(expected);
      taken.add(made);
    }
    expect(copyName('Pier (copy 2)', taken)).toBe('Pier (copy 4)');
  });

  it('stay short enough to be accepted', () => {
    expect(nameSchema.safeParse(copyName('x'.repeat(200), new Set())).success).toBe(true);
  });
});

describe('whether the database is away', () => {
  const coded = (code: string): Error => Object.assign(new Error(code), { code });

  it.each(['ECONNREFUSED', 'ECONNRESET', '57P01', '57P03', '08006', '53300'])('%s: yes', (code) => {
    expect(isDatabaseAway(coded(code))).toBe(true);
    expect(isDatabaseAway(new Error('query failed', { cause: coded(code) }))).toBe(true);
    expect(isDatabaseAway(new AggregateError([coded(code)]))).toBe(true);
  });

  it('a connection cut in the middle: yes', () => {
    expect(isDatabaseAway(new Error('Connection terminated unexpectedly'))).toBe(true);
  });

  it.each(['23505', '42P01', '22P02', 'EACCES'])('%s: no, that is a fault of ours', (code) => {
    expect(isDatabaseAway(coded(code))).toBe(false);
  });

  it('a socket that is not there: yes; a file that is not: no', () => {
    const missing = (syscall: string) => Object.assign(coded('ENOENT'), { syscall });
    expect(isDatabaseAway(missing('connect'))).toBe(true);
    expect(isDatabaseAway(missing('stat'))).toBe(false);
  });

  it('what is no error: no', () => {
    expect(isDatabaseAway(undefined)).toBe(false);
    expect(isDatabaseAway('57P01')).toBe(false);
  });
});

describe('guard', () => {
  const pass = (method: string, headers: Record<string, string>): number => {
    let status = 200;
    try {
      guard(new Set(['localhost', '[::1]']))(
        { method, headers } as unknown as Request,
        {} as Response,
        () => {},
      );
    } catch (error) {
      status = (error as Refusal).status;
    }
    return status;
  };

  it.each([
    ['GET', { host: 'localhost:4170' }, 200],
    ['GET', { host: '[::1]:4170' }, 200],
    ['GET', { host: 'LOCALHOST' }, 200],
    ['GET', { host: 'localhost.elsewhere.example' }, 421],
    ['GET', {}, 421],
    ['PUT', { host: 'localhost:4170', origin: 'http://localhost:4170' }, 200],
    ['PUT', { host: 'localhost:4170' }, 200],
    ['PUT', { host: 'localhost:4170', origin: 'http://localhost:9999' }, 403],
    ['PUT', { host: 'localhost:4170', origin: 'null' }, 403],
    ['GET', { host: 'localhost:4170', origin: 'http://elsewhere.example' }, 200],
  ])('%s %j: %i', (method, headers, status) => {
    expect(pass(method, headers as Record<string, string>)).toBe(status);
  });
});

describe('what comes in', () => {
  it('is refused with a pointer to each bad field', () => {
    const schema = z.object({ name: nameSchema, inner: z.object({ n: z.number() }) });
    try {
      accept(schema, { name: ' ', inner: { n: 'x' } });
      throw new Error('was accepted');
    } catch (error) {
      expect(error).toBeInstanceOf(Refusal);
      const { status, more } = error as Refusal;
      expect(status).toBe(422);
      expect(more.errors!.map((each) => each.pointer)).toEqual(['/name', '/inner/n']);
    }
  });

  it.each(['', '   ', 'a\u0000b', 'line\nbreak', 'x'.repeat(201)])('is no name: %j', (name) => {
    expect(nameSchema.safeParse(name).success).toBe(false);
  });
});
