import fc from 'fast-check';

// Many mutants are tried: a law that notices one does so early.
fc.configureGlobal({ numRuns: 30 });
