import type { Request, Response } from 'express';
import * as z from 'zod';
import { readConfig } from '../src/config.js';
import { allowedNames, isLoopback } from '../src/addresses.js';
import fc from 'fast-check';
import { pino } from 'pino';
import { Measure } from '../src/bodies.js';
import { guard } from '../src/guard.js';
import { NotJson, piecesOf } from '../src/job-files/pieces.js';
import { runs } from '../../../scripts/lib/runs.mjs';
import { copyName } from '../src/documents/copies.js';
import { nameSchema } from '../src/requests.js';
import { faultOf } from '../src/logging.js';
import { accept, afterStoring, errorHandler, Refusal } from '../src/problems.js';
import { troubleOf } from '../src/trouble.js';

const SOUND = { DATABASE_URL: 'postgres://x', WEB_FOLDER: '/web', MIGRATIONS_FOLDER: '/sql' };

describe('configuration', () => {
  it('listens on loopback unless told otherwise', () => {
    const config = readConfig(SOUND);
    expect(config).toMatchObject({ host: '127.0.0.1', port: 4170, logLevel: 'info' });
    expect(config.open).toBe(false);
    expect(['localhost', '127.0.0.1', '[::1]'].every(config.mayAsk)).toBe(true);
    expect(['192.168.7.20', 'studio.local', ''].some(config.mayAsk)).toBe(false);
  });

  it('takes further host names', () => {
    const { mayAsk } = readConfig({ ...SOUND, ALLOWED_HOSTS: 'Studio.local, ,van' });
    expect(mayAsk('studio.local')).toBe(true);
    expect(mayAsk('van')).toBe(true);
    expect(mayAsk('')).toBe(false);
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

  it('are cut between characters as people see them', () => {
    const family = '👨‍👩‍👧';
    const made = copyName(`${'x'.repeat(178)}${family}`, new Set());
    expect(made).toBe(`${'x'.repeat(178)} (copy)`);
    expect(copyName(family.repeat(40), new Set())).toMatch(/👧 \(copy\)$/);
  });

  it('stay short enough to be accepted', () => {
    expect(nameSchema.safeParse(copyName('x'.repeat(200), new Set())).success).toBe(true);
  });
});

describe('trouble with the database', () => {
  const coded = (code: string, message = code): Error =>
    Object.assign(new Error(message), { code });

  it.each([
    ['ECONNREFUSED', 'away'],
    ['ECONNRESET', 'away'],
    ['57P01', 'away'],
    ['57P03', 'away'],
    ['08006', 'away'],
    ['53300', 'away'],
    ['58030', 'away'],
    ['53100', 'full'],
    ['40P01', 'again'],
    ['40001', 'again'],
    ['57014', 'busy'],
    ['28P01', 'refused'],
    ['3D000', 'refused'],
  ])('%s: %s', (code, trouble) => {
    expect(troubleOf(coded(code))).toBe(trouble);
    expect(troubleOf(new Error('query failed', { cause: coded(code) }))).toBe(trouble);
    expect(troubleOf(new AggregateError([coded(code)]))).toBe(trouble);
  });

  it.each([
    'Connection terminated unexpectedly',
    'Client has encountered a connection error and is not queryable',
    'timeout exceeded when trying to connect',
  ])('the driver’s own words for a cut connection: %s', (message) => {
    expect(troubleOf(new Error(message))).toBe('away');
  });

  it('no room on the disk, whatever the code', () => {
    const message = 'could not extend file "base/5/2619": No space left on device';
    expect(troubleOf(coded('53100', message))).toBe('full');
    expect(troubleOf(coded('58030', message))).toBe('full');
  });

  it.each(['23505', '42P01', '22P02', 'EACCES'])('%s: none, that is a fault of ours', (code) => {
    expect(troubleOf(coded(code))).toBeNull();
  });

  it('a socket that is not there: away; a file that is not: none', () => {
    const missing = (syscall: string) => Object.assign(coded('ENOENT'), { syscall });
    expect(troubleOf(missing('connect'))).toBe('away');
    expect(troubleOf(missing('stat'))).toBeNull();
  });

  it('what is no error: none', () => {
    expect(troubleOf(undefined)).toBeNull();
    expect(troubleOf('57P01')).toBeNull();
  });
});

describe('logs', () => {
  it('name a failed query by its code, without query, parameters or values', () => {
    const cause = Object.assign(new Error('value "secret glass" is wrong'), { code: '22P02' });
    const failed = new Error('Failed query: insert … params: secret glass', { cause });
    const told = JSON.stringify(faultOf(failed));
    expect(told).toContain('22P02');
    expect(told).not.toMatch(/secret|insert|params/);
    expect(told).not.toContain('\\n');
  });

  it('name a fault of ours by where it happened, without what it said', () => {
    const told = faultOf(new TypeError('cannot read secret glass'));
    expect(told).toMatchObject({ error: 'TypeError' });
    expect((told.at as string[])[0]).toContain('server.test');
    expect(JSON.stringify(told)).not.toContain('secret');
  });
});

describe('addresses', () => {
  it.each(['127.0.0.1', '127.0.1.1', 'localhost', '::1', '[::1]', '::ffff:127.0.0.1'])(
    '%s is loopback',
    (host) => expect(isLoopback(host)).toBe(true),
  );
  it.each(['0.0.0.0', '::', '192.168.7.20', 'studio', '127.0.0.1.evil.example'])(
    '%s is not',
    (host) => expect(isLoopback(host)).toBe(false),
  );

  it('past loopback any number is answered to, and no name of another', () => {
    const mayAsk = allowedNames('0.0.0.0', []);
    for (const name of ['192.168.7.20', '[fe80::1]', '10.0.0.1', 'localhost', 'LOCALHOST.']) {
      expect(mayAsk(name)).toBe(true);
    }
    for (const name of ['evil.example', '192.168.7.20.evil.example', '', '1.2.3']) {
      expect(mayAsk(name)).toBe(false);
    }
  });

  it('the name it listens under is answered to', () => {
    expect(allowedNames('studio.lan', [])('Studio.lan')).toBe(true);
  });
});

describe('guard', () => {
  const pass = (
    method: string,
    headers: Record<string, string>,
    { raw, url = '/' }: { raw?: string[]; url?: string } = {},
  ): number => {
    let status = 200;
    try {
      guard(allowedNames('127.0.0.1', []))(
        {
          method,
          headers,
          rawHeaders: raw ?? Object.entries(headers).flat(),
          originalUrl: url,
        } as unknown as Request,
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

  it('refuses two names at once, and what is meant for another server', () => {
    const headers = { host: 'localhost:4170' };
    const raw = ['Host', 'localhost:4170', 'hOsT', 'elsewhere.example'];
    expect(pass('GET', headers, { raw })).toBe(400);
    expect(pass('GET', headers, { url: 'http://elsewhere.example/api/jobs' })).toBe(421);
    expect(pass('GET', headers, { url: 'http://localhost:4170/api/jobs' })).toBe(200);
    expect(pass('GET', headers, { url: '/api/jobs?then=http://elsewhere.example/' })).toBe(200);
  });
});

describe('a body', () => {
  const bounds = { what: 'The file', bytes: 60_000_000, depth: 10, members: 1000 };
  const taken = (text: string | Buffer, pieceBytes = 7): number => {
    const measure = new Measure(bounds);
    const bytes = Buffer.from(text as string);
    let read = 0;
    try {
      for (let at = 0; at < bytes.length; at += pieceBytes) {
        measure.take(bytes.subarray(at, at + pieceBytes));
        read = Math.min(bytes.length, at + pieceBytes);
      }
    } catch (error) {
      expect(error).toBeInstanceOf(Refusal);
      expect((error as Refusal).status).toBe(413);
      return -read;
    }
    return read;
  };

  it('is counted as it comes, whatever its pieces', () => {
    fc.assert(
      fc.property(fc.json({ maxDepth: 4 }), fc.integer({ min: 1, max: 40 }), (text, piece) => {
        expect(taken(text, piece)).toBe(Buffer.byteLength(text));
      }),
      { numRuns: runs(300) },
    );
    expect(taken('"' + '['.repeat(5000) + '\\\\\\"' + ',{'.repeat(5000) + '"')).toBeGreaterThan(0);
  });

  it('of 49 MB of members is refused after its first few, unread', () => {
    const all = `[${'1,'.repeat(24_500_000)}1]`;
    expect(taken(all, 65_536)).toBeCloseTo(0);
    expect(taken(`${'['.repeat(11)}`)).toBeLessThanOrEqual(0);
    expect(taken('['.repeat(10) + ']'.repeat(10))).toBe(20);
  });
});

describe('a large object taken apart', () => {
  const lists = new Set(['stations', 'kit']);
  const whole = (bytes: Buffer): Record<string, unknown> => {
    const made: Record<string, unknown> = Object.create(null);
    for (const { kind, name, ...piece } of piecesOf(bytes, lists)) {
      if (kind === 'list') made[name] = [];
      else if (kind === 'entry')
        (made[name] as unknown[]).push((piece as { value: unknown }).value);
      else made[name] = (piece as { value: unknown }).value;
    }
    return made;
  };

  it('is what a parser makes of it', () => {
    const value = fc.jsonValue({ maxDepth: 3 });
    fc.assert(
      fc.property(
        fc.record(
          {
            stations: fc.oneof(fc.array(value), value),
            kit: fc.array(value),
            name: value,
            x: value,
          },
          { requiredKeys: [] },
        ),
        fc.constantFrom(undefined, 1, '\t'),
        fc.boolean(),
        (document, space, mark) => {
          const text = `${mark ? '\uFEFF' : ''}${JSON.stringify(document, null, space)}`;
          expect({ ...whole(Buffer.from(text)) }).toEqual(JSON.parse(JSON.stringify(document)));
        },
      ),
      { numRuns: runs(500) },
    );
  });

  it.each([
    '',
    '{',
    '[]',
    '{"a"}',
    '{"a":}',
    '{"a":1,}',
    '{"stations":[1,]}',
    '{"stations":[1 2]}',
    '{"stations":[',
    '{"a":1}x',
    '{"a":"x}',
    '{"a":{]}',
    '{"stations":[{]]}',
    'null',
    '{a:1}',
    '{"a":1 "b":2}',
    '{"a":tru}',
  ])('that is no JSON: %s', (text) => {
    expect(() => whole(Buffer.from(text))).toThrow(NotJson);
    expect(() => JSON.parse(text) as unknown).not.toBe(null);
  });
});

describe('after a change is stored', () => {
  const detailOf = (error: unknown): string => {
    let said = '';
    const response = {
      locals: {},
      setHeader: () => {},
      status: () => response,
      type: () => response,
      send: (body: string) => (said = (JSON.parse(body) as { detail: string }).detail),
    };
    errorHandler(pino({ level: 'silent' }))(error, {} as Request, response as never, () => {});
    return said;
  };
  const away = Object.assign(new Error('x'), { code: 'ECONNREFUSED', syscall: 'connect' });
  const cut = new Error('Connection terminated unexpectedly');

  it('nobody is told that nothing was', async () => {
    expect(detailOf(away)).toContain('Nothing was changed.');
    const shown = await afterStoring(() => Promise.reject(away)).catch((error: unknown) => error);
    expect(detailOf(shown)).toContain('is stored');
    expect(detailOf(cut)).toContain('is not known');
    const fault = await afterStoring(() => Promise.reject(new TypeError())).catch(
      (e: unknown) => e,
    );
    expect(detailOf(fault)).toContain('is stored');
    for (const error of [shown, cut, fault]) expect(detailOf(error)).not.toContain('Nothing');
    expect(detailOf(new TypeError())).not.toContain('Nothing');
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

  it.each(['', '   ', 'a\u0000b', 'line\nbreak', 'x'.repeat(201), 'half \ud83d'])(
    'is no name: %j',
    (name) => {
      expect(nameSchema.safeParse(name).success).toBe(false);
    },
  );
});
