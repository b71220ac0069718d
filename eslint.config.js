import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Each room of the core may know only the rooms before it: the arrows of the architecture point down. */
const rooms = ['measure', 'metal', 'card', 'blank', 'sheet', 'shape', 'fit', 'weld', 'format'];
const allowed = {
  measure: [],
  metal: ['measure'],
  card: ['measure', 'metal'],
  blank: ['measure', 'metal', 'card'],
  sheet: ['measure', 'metal', 'card', 'blank'],
  shape: ['measure', 'metal', 'card', 'blank', 'sheet'],
  fit: ['measure', 'metal', 'card', 'blank', 'sheet', 'shape'],
  weld: ['measure', 'metal', 'card', 'blank', 'sheet', 'shape', 'fit'],
  format: rooms.filter((room) => room !== 'format'),
};
const outside = [
  { regex: '^(#app|#core)/', message: 'The core imports by relative path and never from the application.' },
  {
    regex: '^(?!zod$|\\.)',
    message: 'The core knows no interface, no Node.js, no database: only zod and its own rooms.',
  },
];
const coreRules = rooms.map((room) => {
  const barred = rooms.filter((other) => other !== room && !allowed[room].includes(other));
  const patterns = [...outside];
  if (barred.length > 0) {
    patterns.push({
      regex: `^(\\.\\./)+(${barred.join('|')})/`,
      message: `core/${room} may import only from: ${allowed[room].join(', ') || 'itself'}.`,
    });
  }
  return {
    files: [`core/${room}/**/*.ts`],
    ignores: ['core/**/*.test.ts', 'core/**/*.arbitrary.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns }] },
  };
});

const stages = ['survey', 'card', 'blank', 'sheet', 'shape', 'fit', 'weld', 'finish', 'jobs', 'shop', 'reckoner'];
const stageRules = stages.map((stage) => ({
  files: [`app/${stage}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            regex: `^(#app|(\\.\\./)+)(/app)?/?(${stages.filter((other) => other !== stage).join('|')})/`,
            message: 'A stage never imports another stage: move what they share to drawing, shell, records or core.',
          },
          { regex: '^(\\.\\./)+core/', message: 'Import the core as #core/…' },
        ],
      },
    ],
  },
}));
const sharedRules = {
  files: ['app/{drawing,shell,records,workers}/**/*.{ts,tsx}'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { regex: `^(#app|(\\.\\./)+)/?(${stages.join('|')})/`, message: 'What stages share knows no stage.' },
        ],
      },
    ],
  },
};

export default tseslint.config(
  { ignores: ['build', 'node_modules', '.react-router', '.patrone', 'test-results', 'playwright-report'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/**/*.arbitrary.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer', 'setTimeout', 'fetch'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The core knows no chance: ids are given by the caller.' },
        { object: 'Date', property: 'now', message: 'The core knows no clock.' },
      ],
    },
  },
  ...coreRules,
  ...stageRules,
  sharedRules,
  { files: ['app/**/*.{ts,tsx}'], ...reactHooks.configs.flat['recommended-latest'] },
);
