import fc from 'fast-check';

// A mutant is tried by each law for a moment: many are tried, and a law that notices one does so early.
fc.configureGlobal({ interruptAfterTimeLimit: 400, markInterruptAsFailure: false });
