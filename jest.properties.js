import fc from 'fast-check';

/**
 * A property that fails is made simpler step by step, which may take hours: after ten minutes it is reported as it stands. One that
 * could not make all its runs by then has failed, too, and does not count as held.
 */
fc.configureGlobal({
  interruptAfterTimeLimit: process.env.LEDRIN_DEEP_TESTS ? 3_600_000 : 600_000,
  markInterruptAsFailure: true,
  ...(process.env.LEDRIN_DEEP_TESTS ? { numRuns: 1000 } : {}),
});
