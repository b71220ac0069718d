import fc from 'fast-check';

// The same figures are tried at every run, so that a failure is somebody's change and not the day's
// luck. New ones are tried with PATRONE_SEED=random (or the seed of a failure, to see it again).
// Shrinking is off: of millions of steps it would not end; a failing case names its seed and path.
const seed = process.env.PATRONE_SEED ?? '1953';
fc.configureGlobal({ endOnFailure: true, ...(seed === 'random' ? {} : { seed: Number(seed) }) });

// Each worker has an empty database to itself, where ./patrone check or test has started one.
const databases = process.env.PATRONE_TEST_DATABASES;
if (databases) process.env.DATABASE_URL = databases.replace('%', process.env.JEST_WORKER_ID ?? '1');
