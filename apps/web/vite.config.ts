import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig, type Plugin } from 'vite';

/** What every page needs, whatever it shows. */
const LIBRARIES =
  /node_modules\/(react|react-dom|react-router|scheduler|@reduxjs|immer|redux|redux-thunk|react-redux|reselect|use-sync-external-store|clsx|fast-deep-equal|idb|zod)\//;

const MAKERS = [
  [/\/zod\/v4\/core\/json-schema-processors\.js$/, /^export const (\w+Processor) = /gm],
  [/\/zod\/v4\/core\/to-json-schema\.js$/, /^export const (create\w+Method) = /gm],
] as const;

/**
 * Every schema of Zod can write itself as a JSON Schema, which only the command line does: in the
 * browser those functions say so instead, and what they are made of is left out (8 kB of a first load).
 */
const withoutJsonSchema: Plugin = {
  name: 'without JSON Schema',
  transform(code, id) {
    const maker = MAKERS.find(([file]) => file.test(id));
    if (!maker) return null;
    const [file, exported] = maker;
    if (code.search(exported) < 0) this.error(`${file} is not as it was; see withoutJsonSchema`);
    // What makes a writer is called with every schema; the writer itself never is.
    const none =
      "const none = () => () => { throw new Error('No JSON Schema is made in the browser.'); };\n";
    return {
      code: none + code.replace(exported, 'export const $1 = none;\nconst $1Made = '),
      map: null,
    };
  },
};

export default defineConfig({
  plugins: [react(), tailwindcss(), withoutJsonSchema],
  resolve: {
    // The package names its development build whatever is built.
    alias: [
      {
        find: /^react-router$/,
        replacement: fileURLToPath(
          new URL('../../node_modules/react-router/dist/production/index.mjs', import.meta.url),
        ),
      },
    ],
  },
  // Workers load what they need when they need it, as pages do.
  worker: { format: 'es' },
  build: {
    target: 'es2023',
    // The content policy takes no data: scripts or fonts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    rolldownOptions: {
      output: {
        // Many small files together are larger than a few: what pages share comes together, with what it needs.
        codeSplitting: {
          groups: [
            { name: 'libraries', test: LIBRARIES },
            {
              name: 'base',
              test: /apps\/web\/src\/(browser|records\/(api|states|use-tries)|store\/(store|preferences|rig|station)\.ts|ui\/(button|boundary|standing|notices)\b)/,
            },
            // What every page of a station is drawn and told with.
            {
              name: 'shown',
              test: /apps\/web\/src\/(drawing\/(arrows|drag|drawn|handle|key-run|sheet|use-size)|station\/(assumed|results|station-part|way-list|why|why-look)|fields\/(field|fields)|store\/typed-text)\.tsx?$/,
            },
            // What a station is worked out with; a list of jobs needs none of it.
            { name: 'figures', test: /apps\/web\/src\/store\/(selectors|editing|kept)\.ts/ },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env.PORT ?? 4170}` } },
});
