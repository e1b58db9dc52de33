export default {
  roots: ['<rootDir>/core', '<rootDir>/contract', '<rootDir>/server', '<rootDir>/cli', '<rootDir>/web', '<rootDir>/scripts', '<rootDir>/bench'],
  testMatch: ['**/*.test.{ts,tsx}'],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '\\.tsx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } }, module: { type: 'es6' } }] },
  setupFiles: ['<rootDir>/scripts/test-seed.mjs'],
  watchman: false,
  globalSetup: '<rootDir>/scripts/test-database.mjs',
  globalTeardown: '<rootDir>/scripts/test-database-stop.mjs',
  maxWorkers: 2,
  // What a file loaded is never let go of whole: a worker that has run many gets twice as slow, and is replaced before.
  workerIdleMemoryLimit: '700MB',
  // Only ends what hangs: the longest take a minute, and a busy machine may be eight times as slow. Budgets are held by the tests themselves.
  testTimeout: 400_000,
};
