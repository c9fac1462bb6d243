const swc = {
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', tsx: true },
    transform: { react: { runtime: 'automatic' } },
  },
  module: { type: 'commonjs' },
}

/** One project per kind of test: the core by example and property, the API over HTTP, the application in a browser. */
const project = (name, extra = {}) => ({
  displayName: name,
  rootDir: `${import.meta.dirname}/${name}`,
  testEnvironment: 'node',
  transform: { '\\.[cm]?[jt]sx?$': ['@swc/jest', swc] },
  ...extra,
})

export default {
  // No test is about time; on a machine that other work shares five seconds are soon gone.
  testTimeout: 180_000,
  projects: [
    project('core'),
    project('cli'),
    project('contract'),
    project('web', {
      // These come as modules only.
      transformIgnorePatterns: ['/node_modules/(?!(uuid|idb|react-hotkeys-hook|comlink)/)'],
      setupFiles: ['<rootDir>/testing/setup.ts'],
      setupFilesAfterEnv: ['<rootDir>/testing/patience.ts'],
    }),
    project('server'),
    project('e2e'),
  ],
}
