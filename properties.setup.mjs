/** Properties are tried on the same cases every time, so that a test is steady; PROPERTY_SEED tries others. */
import fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED) || 20261128 });
