import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      'build',
      'node_modules',
      '.react-router',
      '.patrone',
      'test-results',
      'playwright-report',
    ],
  },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/**/*.arbitrary.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'Buffer',
        'setTimeout',
        'fetch',
      ],
      'no-restricted-properties': [
        'error',
        {
          object: 'Math',
          property: 'random',
          message: 'The core knows no chance: ids are given by the caller.',
        },
        { object: 'Date', property: 'now', message: 'The core knows no clock.' },
      ],
    },
  },
  {
    files: ['app/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^(\\.\\./)+core/', message: 'Import the core as #core/…' }] },
      ],
    },
  },
  { files: ['app/**/*.{ts,tsx}'], ...reactHooks.configs.flat['recommended-latest'] },
);
