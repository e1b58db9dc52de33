export default {
  roots: ['<rootDir>/core', '<rootDir>/contract', '<rootDir>/server', '<rootDir>/cli', '<rootDir>/web', '<rootDir>/scripts', '<rootDir>/bench'],
  testMatch: ['**/*.test.{ts,tsx}'],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '\\.tsx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } }, module: { type: 'es6' } }] },
  watchman: false,
  globalSetup: '<rootDir>/scripts/test-database.mjs',
  globalTeardown: '<rootDir>/scripts/test-database-stop.mjs',
  maxWorkers: 2,
  testTimeout: 30_000,
};
