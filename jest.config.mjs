const swc = [
  `${import.meta.dirname}/scripts/lib/jest-transform.mjs`,
  {
    jsc: {
      target: 'es2023',
      experimental: { keepImportAttributes: true },
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
    },
  },
];

const project = (name) => ({
  displayName: name,
  rootDir: name,
  testMatch: [name === 'e2e/http' ? '<rootDir>/*.test.ts' : '<rootDir>/test/**/*.test.ts'],
  setupFilesAfterEnv: [`${import.meta.dirname}/scripts/lib/jest-seed.mjs`],
  transform: { '\\.tsx?$': swc },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  // Sources name their neighbours as built (.js), as Node asks; here they are still TypeScript.
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  moduleFileExtensions: ['ts', 'tsx', 'js', 'mjs', 'json'],
});

export default {
  // Random suites are sized for coverage, not for speed; a busy machine may take its time.
  testTimeout: 600_000,
  maxWorkers: '100%',
  testSequencer: `${import.meta.dirname}/scripts/lib/jest-longest-first.mjs`,
  projects: [
    'packages/optics',
    'packages/frames',
    'packages/station',
    'packages/paper',
    'packages/sidecar',
    'apps/cli',
    'apps/server',
    'apps/web',
    'scripts',
    'e2e/http',
  ].map(project),
};
