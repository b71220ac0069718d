/** @type {import('jest').Config} */
export default {
  testEnvironment: 'node',
  // Jest would leave one of two cores idle.
  maxWorkers: '100%',
  // Looked up through the sandbox they would be most of what reckoning costs.
  sandboxInjectedGlobals: [
    'Math',
    'Float64Array',
    'Uint8Array',
    'Float32Array',
    'Uint8ClampedArray',
    'Infinity',
  ],
  roots: ['<rootDir>/core', '<rootDir>/app', '<rootDir>/cli', '<rootDir>/demo', '<rootDir>/server'],
  setupFiles: ['<rootDir>/jest.setup.js'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: {
    '^#core/(.*)$': '<rootDir>/core/$1',
    '^#app/(.*)$': '<rootDir>/app/$1',
    // Its vectors and matrices without the renderer.
    '^three$': '<rootDir>/node_modules/three/build/three.core.js',
  },
  // Published as ES modules only; everything else in node_modules is left as it is.
  transformIgnorePatterns: [
    '/node_modules/(?!(svg-pathdata|three|ml-[a-z-]+|is-any-array|p-limit|yocto-queue)/)',
  ],
  transform: {
    '^.+\\.[tj]sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
  },
};
