/** What is counted of a release that was made. */
export interface ReleaseCounts {
  readonly number: number;
  readonly pages: number;
  readonly retired: number;
}

/** The database went away while it was saving: whether it saved is not known here. */
export class UnknownOutcome extends Error {
  constructor(cause: unknown) {
    super('The database did not say whether it had saved.', { cause });
  }
}

/**
 * Whether a fault of the database is its answer that nothing was saved: an error with an SQLSTATE. The classes 08 (connection) and 57
 * (the server is stopped) come from a connection that ends, which can be after the commit, and so do faults without a code.
 * Source: PostgreSQL's list of error codes.
 */
export function isOutcomeKnown(fault: unknown): boolean {
  const code = (fault as { code?: unknown } | null)?.code;
  return typeof code === 'string' && /^[0-9A-Z]{5}$/.test(code) && !code.startsWith('08') && !code.startsWith('57');
}
