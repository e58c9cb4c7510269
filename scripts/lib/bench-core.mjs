import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { gzipSync } from 'node:zlib';
import { commitOf, coreAt, coreNow, lastLanded } from './core-builds.mjs';
import { questions } from './core-questions.mjs';
import { at } from './paths.mjs';

/** The core against the last that landed, in turns: a busy machine slows both. */

/** Calls of one build before it is the other’s turn, ms. */
const TURN_MS = 45;
const WARM_TURNS = 6;
const TURNS = 25;
/** A line may come out this much slower before the run fails: less is noise. */
const LEAST_RATIO = 0.9;

const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Calls a second during one turn. */
function turn([work, among]) {
  const begin = performance.now();
  let calls = 0;
  do {
    for (const each of among) work(each);
    calls += among.length;
  } while (performance.now() - begin < TURN_MS);
  return (calls * 1000) / (performance.now() - begin);
}

/** @returns the middle of the ratios of neighbouring turns, and the best rates of both */
function inTurns(now, landed) {
  const rates = { now: [], landed: [] };
  for (let i = -WARM_TURNS; i < TURNS; i++) {
    // Who begins changes, so that neither always follows the other’s garbage.
    const order = i % 2 === 0 ? ['now', 'landed'] : ['landed', 'now'];
    for (const name of order) {
      const rate = turn(name === 'now' ? now : landed);
      if (i >= 0) rates[name].push(rate);
    }
  }
  return {
    ratio: median(rates.now.map((rate, i) => rate / rates.landed[i])),
    now: Math.max(...rates.now),
    landed: Math.max(...rates.landed),
  };
}

/** Script of a first load of Cover, gzipped, kB: what its chunks import, without the lazy rest. */
async function firstLoadKb() {
  const { build } = await import('vite');
  const built = await build({
    root: at('apps/web'),
    logLevel: 'error',
    build: { write: false },
  });
  const chunks = new Map(
    built.output.filter(({ type }) => type === 'chunk').map((chunk) => [chunk.fileName, chunk]),
  );
  const wanted = [
    '/index.html',
    '/src/main.tsx',
    '/src/station/index.ts',
    '/src/cover/cover-step.tsx',
  ];
  const seen = new Set();
  const follow = (name) => {
    if (seen.has(name)) return;
    seen.add(name);
    for (const next of chunks.get(name)?.imports ?? []) follow(next);
  };
  for (const { fileName, facadeModuleId } of chunks.values()) {
    if (facadeModuleId && wanted.some((end) => facadeModuleId.endsWith(end))) follow(fileName);
  }
  let bytes = 0;
  for (const name of seen) bytes += gzipSync(chunks.get(name)?.code ?? '').length;
  return bytes / 1000;
}

/** Minutes of the last run of the tests, where there was one. */
function testMinutes() {
  const file = at('.data/test-times.json');
  if (!existsSync(file)) return null;
  const { seconds, failed, atLength } = JSON.parse(readFileSync(file, 'utf8'));
  return failed > 0 || atLength ? null : seconds / 60;
}

const PACE = at('docs/pace.md');

function writeLine(cells) {
  const text = readFileSync(PACE, 'utf8').trimEnd();
  const rows = text.split('\n');
  const line = `| ${cells.join(' | ')} |`;
  // The same commit measured again takes the place of its line.
  const at_ = rows.findIndex((row) => row.startsWith(`| ${cells[0]} |`));
  if (at_ >= 0) rows[at_] = line;
  else rows.push(line);
  writeFileSync(PACE, `${rows.join('\n')}\n`);
}

/** `npm run bench -- core [COMMIT]`: against a commit, or the one of the last line of docs/pace.md. */
export async function measureCore(say, against = lastLanded()) {
  if (!against) throw new Error('docs/pace.md names no commit to measure against; give one.');
  const [now, landed] = await Promise.all([coreNow(), coreAt(commitOf(against))]);
  const documents = readdirSync(at('apps/server/demo')).map((name) =>
    JSON.parse(readFileSync(at('apps/server/demo', name), 'utf8')),
  );
  const [mine, theirs] = [questions(now, documents), questions(landed, documents)];
  say(
    `${commitOf('HEAD')} against ${commitOf(against)}, in turns; calls a second, and their ratio`,
  );
  const lines = [];
  for (const name of Object.keys(mine)) {
    const line = { name, ...inTurns(mine[name], theirs[name]) };
    lines.push(line);
    const figures = [line.now, line.landed].map((rate) => Math.round(rate).toLocaleString('en'));
    say(
      `${name.padEnd(20)} ${figures.map((each) => each.padStart(9)).join(' ')} ` +
        `${line.ratio.toFixed(2).padStart(7)}${line.ratio < LEAST_RATIO ? '  slower' : ''}`,
    );
  }
  const kb = await firstLoadKb();
  say(`first load of script, gzipped: ${kb.toFixed(0)} kB`);
  const least = lines.reduce((a, b) => (b.ratio < a.ratio ? b : a));
  const rate = (name) => Math.round(lines.find((line) => line.name === name).now);
  const minutes = testMinutes();
  writeLine([
    `\`${commitOf('HEAD')}\``,
    `\`${commitOf(against)}\``,
    `${least.ratio.toFixed(2)} ${least.name}`,
    `${median(lines.map(({ ratio }) => ratio)).toFixed(2)}`,
    ...['what Cover reads', 'evaluate, as JSON', 'six scales', 'solve 12 marks'].map((name) =>
      rate(name).toLocaleString('en'),
    ),
    `${kb.toFixed(0)} kB`,
    minutes === null ? '' : `${minutes.toFixed(0)} min`,
  ]);
  return least.ratio >= LEAST_RATIO;
}
