/** One configuration for the unit tests of every workspace; the browser is driven by Playwright in `e2e`. */
module.exports = {
  testEnvironment: 'node',
  runtime: '<rootDir>/server/testing/kept-modules.cjs',
  roots: [
    '<rootDir>/core/src',
    '<rootDir>/paint/src',
    '<rootDir>/server/src',
    '<rootDir>/cli/src',
    '<rootDir>/web/src',
  ],
  testMatch: ['**/*.test.ts'],
  transform: {
    '\\.ts$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript', decorators: true }, target: 'es2022' } }],
    '\\.mjs$': ['@swc/jest', { jsc: { target: 'es2022' }, module: { type: 'commonjs' } }],
  },
  moduleFileExtensions: ['ts', 'js', 'mjs', 'cjs', 'json'],
  transformIgnorePatterns: ['/node_modules/(?!d3-ease/|@angular/)'],
  moduleNameMapper: {
    '^@wexikine/core$': '<rootDir>/core/src/index.ts',
    '^@wexikine/core/drawing$': '<rootDir>/core/src/out/drawing/index.ts',
    '^@wexikine/paint$': '<rootDir>/paint/src/index.ts',
    '^d3-(color|interpolate|path|shape)$': '<rootDir>/node_modules/d3-$1/dist/d3-$1.js',
    '^culori/fn$': '<rootDir>/node_modules/culori/bundled/culori.cjs',
  },
  setupFiles: ['<rootDir>/server/testing/property-seed.cjs'],
  globalSetup: '<rootDir>/server/testing/global-setup.cjs',
  // What computation asks for all the time: looking a global up in a test's world takes longer than most sums.
  sandboxInjectedGlobals: ['Array', 'Float64Array', 'Infinity', 'Int32Array', 'Map', 'Math', 'Object', 'Set'],
  maxWorkers: 2,
  testTimeout: 30000,
};
