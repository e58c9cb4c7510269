#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/main.js', import.meta.url);
if (!existsSync(built)) {
  const { buildCli } = await import('../../../scripts/lib/build.mjs');
  await buildCli();
}
const { run } = await import(built.href);
// A reader that stops early (head, less) is no failure.
process.stdout.on('error', (error) => process.exit(error.code === 'EPIPE' ? 0 : 1));
process.exitCode = await run(process.argv.slice(2), {
  stdin: process.stdin,
  out: (text) => process.stdout.write(text),
  err: (text) => process.stderr.write(text),
});
