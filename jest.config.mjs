const swc = (tsx) => [
  '@swc/jest',
  {
    jsc: {
      target: 'es2022',
      parser: { syntax: 'typescript', tsx },
      transform: { react: { runtime: 'automatic' } },
    },
    module: { type: 'es6' },
  },
];
const project = (name, more = {}) => ({
  displayName: name,
  rootDir: `./${name}`,
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '^.+\\.ts$': swc(false), '^.+\\.tsx$': swc(true) },
  moduleNameMapper: {
    '^(\\.{1,2}/.*)\\.js$': '$1',
    '\\.css$': '<rootDir>/src/test-support/no-style.ts',
    // Its package calls itself a module and names a script as its main file.
    '^@panzoom/panzoom$': '<rootDir>/../node_modules/@panzoom/panzoom/dist/panzoom.es.js',
  },
  ...more,
});

export default {
  // No test is timed: how long one takes says how busy the machine is. This only ends one that hangs.
  testTimeout: 1_800_000,
  // Half of the tests wait for processes and databases more than they compute.
  maxWorkers: 2,
  projects: [
    project('core'),
    project('cli'),
    project('demo'),
    project('standin'),
    project('server', {
      globalSetup: '<rootDir>/../scripts/jest-database-start.mjs',
      globalTeardown: '<rootDir>/../scripts/jest-database-stop.mjs',
    }),
    project('scripts', {
      testMatch: [
        '<rootDir>/*.test.ts',
        '<rootDir>/together/*.test.ts',
        '<rootDir>/backup/*.test.ts',
        '<rootDir>/shape/*.test.ts',
      ],
    }),
    project('web', {
      testEnvironment: 'jsdom',
      setupFiles: ['<rootDir>/src/test-support/browser-parts.ts'],
      setupFilesAfterEnv: [
        '<rootDir>/src/test-support/patience.ts',
        '<rootDir>/src/test-support/no-warnings.ts',
      ],
    }),
  ],
};
