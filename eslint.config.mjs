import hooks from 'eslint-plugin-react-hooks';
import a11y from 'eslint-plugin-jsx-a11y';
import globals from 'globals';
import ts from 'typescript-eslint';

/** Imports point one way: web, command line → paper → station → optics; server → station. */
const only = (files, allowed, forbidden) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ regex: forbidden, message: `Only ${allowed} may be imported here.` }] },
    ],
  },
});

export default ts.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.data/**',
      'test-results/**',
      'apps/web/public/**',
    ],
  },
  ...ts.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      complexity: ['error', 20],
      'max-depth': ['error', 4],
    },
  },
  only(['packages/optics/src/**'], 'its own files', '^(?!\\.\\.?/)'),
  only(
    ['packages/station/src/**'],
    'its own files, @gangway/optics, types of @gangway/frames, zod and the integer solver',
    '^(?!\\.\\.?/|@gangway/(optics|frames)$|zod$|yalps$)',
  ),
  only(
    ['packages/frames/src/**'],
    'its own files, the transform and linear algebra',
    '^(?!\\.\\.?/|fft\\.js$|ml-matrix$)',
  ),
  only(
    ['packages/paper/src/**'],
    'its own files, @gangway/station, the PDF writer and what it reads type and makes codes with',
    '^(?!\\.\\.?/|@gangway/station$|pdfkit$|fontkit$|fflate$|qrcode-generator$)',
  ),
  only(
    ['apps/web/src/**'],
    'packages, @gangway/station, @gangway/frames, @gangway/paper and @gangway/sidecar',
    '^@gangway/(?!(station|frames|paper|sidecar|sidecar/facts)$)|^node:|packages/|server/',
  ),
  only(
    ['apps/server/src/**'],
    'packages and @gangway/station',
    '^@gangway/(?!station$)|packages/|web/',
  ),
  only(
    ['apps/cli/src/**'],
    'packages, @gangway/station, @gangway/frames, @gangway/paper and @gangway/sidecar',
    '^@gangway/(?!(station|frames|paper|sidecar|sidecar/facts)$)|packages/|web/',
  ),
  {
    files: ['apps/web/**/*.tsx', 'apps/web/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    // The compiler this rule is for is not used.
    rules: { ...hooks.configs.recommended.rules, 'react-hooks/incompatible-library': 'off' },
    languageOptions: { globals: globals.browser },
  },
  {
    files: ['apps/web/**/*.tsx'],
    ...a11y.flatConfigs.recommended,
    rules: {
      ...a11y.flatConfigs.recommended.rules,
      // A dialog opened to name one thing begins in that field.
      'jsx-a11y/no-autofocus': 'off',
    },
  },
  { files: ['**/*.mjs'], languageOptions: { globals: globals.node } },
);
