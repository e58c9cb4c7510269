import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { performance } from 'node:perf_hooks';
import { at } from './paths.mjs';

/** What the card promises: forty of them as one PDF in under three seconds, in a process that made none before. */
export async function measureCards(say) {
  const { build, stop } = await import('esbuild');
  const { outputFiles } = await build({
    stdin: {
      contents: "export * from '@gangway/paper'; export { parseStation } from '@gangway/station';",
      resolveDir: at('apps/cli'),
    },
    write: false,
    bundle: true,
    platform: 'node',
    format: 'esm',
    external: ['pdfkit', 'fontkit', 'fflate', 'qrcode-generator'],
  });
  await stop();
  const { writeFileSync, rmSync } = await import('node:fs');
  // Beside the packages it leaves outside, so that they are found.
  const file = at('packages/paper', `.bench-${process.pid}.mjs`);
  writeFileSync(file, outputFiles[0].contents);
  try {
    const { cardSheets, FACE_FILES, parseStation, sheetPdf, typeface } = await import(file);
    const require = createRequire(import.meta.url);
    const faces = FACE_FILES.map((name) =>
      readFileSync(require.resolve(`@fontsource/archivo/files/${name}`)),
    );
    const names = ['1-customs-house-front', '3-customs-house-hall', '2-glassblower-bench'];
    const stations = [...names, '5-salt-marsh', '10-ropewalk-frames'].map(
      (name) => parseStation(JSON.parse(readFileSync(at(`apps/server/demo/${name}.json`)))).value,
    );
    const start = performance.now();
    const face = typeface(faces);
    const sheets = Array.from({ length: 40 }, (_, i) =>
      cardSheets({ station: { ...stations[i % 5], name: `Card ${i + 1}` }, size: 'A5' }, face),
    ).flat();
    const { bytes } = await sheetPdf(sheets, face);
    const seconds = (performance.now() - start) / 1000;
    say(
      `40 cards as one PDF:                 ${seconds.toFixed(2)} s (3 allowed), ${sheets.length} pages, ${(bytes.length / 1e6).toFixed(1)} MB`,
    );
  } finally {
    rmSync(file, { force: true });
  }
}
