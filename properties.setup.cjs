/** Properties are tried on the same cases every time, so that a test is steady; PROPERTY_SEED tries others. */
// eslint-disable-next-line @typescript-eslint/no-require-imports -- tests are CommonJS once compiled: an import would configure another copy of fast-check
const fc = require('fast-check');

fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED) || 20261128 });
