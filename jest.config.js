const transform = {
  '^.+\\.(t|m?j)sx?$': [
    '@swc/jest',
    {
      jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
      // HarfBuzz comes as an ES module that waits for its own loading: import() of it stays what it is.
      module: { type: 'commonjs', ignoreDynamic: true },
    },
  ],
};
const common = {
  transform,
  moduleNameMapper: {
    '^@scenograph/contract$': '<rootDir>/packages/contract/index.ts',
    '^@scenograph/contract/(.*)$': '<rootDir>/packages/contract/$1',
    '^@scenograph/core/(.*)$': '<rootDir>/packages/core/$1',
    '^@scenograph/host-node/(.*)$': '<rootDir>/packages/host-node/$1',
  },
  // These packages come as ES modules only.
  transformIgnorePatterns: ['/node_modules/(?!(intl-messageformat|@formatjs|culori|svg-pathdata)/)'],
  // Globals that hot loops use: looked up through Jest's sandbox they make computation ten times slower.
  sandboxInjectedGlobals: [
    'Math',
    'Float32Array',
    'Float64Array',
    'Int32Array',
    'Uint8Array',
    'Int16Array',
    'Uint8ClampedArray',
  ],
  rootDir: import.meta.dirname,
  setupFiles: ['<rootDir>/properties.setup.cjs'],
  modulePathIgnorePatterns: ['/dist/'],
};

/** The web's parts, rendered into jsdom; MSW answers in the server's place. */
const web = {
  ...common,
  displayName: 'web',
  moduleNameMapper: {
    ...common.moduleNameMapper,
    // What paints in a worker; `workers/painters.test.ts` itself asks for ./painters.
    '/workers/painters$': '<rootDir>/apps/web/test/painters.ts',
    '/workers/surveying$': '<rootDir>/apps/web/test/surveying.ts',
    '^react-chartjs-2$': '<rootDir>/apps/web/test/charts.tsx',
    '^react-konva$': '<rootDir>/apps/web/test/konva.tsx',
  },
  testMatch: ['<rootDir>/apps/web/**/*.test.{ts,tsx}'],
  testEnvironment: '<rootDir>/apps/web/test/environment.mjs',
  setupFilesAfterEnv: ['<rootDir>/apps/web/test/setup.ts'],
  transform: {
    '^.+\\.(t|m?j)sx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs', ignoreDynamic: true },
      },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(react-intl|intl-messageformat|@formatjs|culori|svg-pathdata|msw|@mswjs|until-async|rettime|@bundled-es-modules|immer|@tanstack|@open-draft)/)',
  ],
};

export default {
  testTimeout: 600_000,
  projects: [
    { ...common, displayName: 'core', testMatch: ['<rootDir>/packages/**/*.test.ts'] },
    // These start servers, workers and command lines of their own; "npm test" prepares what they need.
    { ...common, displayName: 'server', testMatch: ['<rootDir>/apps/{server,cli}/**/*.test.ts'] },
    web,
  ],
};
