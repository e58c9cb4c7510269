import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** What every page needs, whatever it shows. */
const LIBRARIES =
  /node_modules\/(react|react-dom|react-router|scheduler|@reduxjs|immer|redux|redux-thunk|react-redux|reselect|use-sync-external-store|clsx|fast-deep-equal|idb|zod)\//;

export default defineConfig({
  plugins: [react(), tailwindcss()],
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
