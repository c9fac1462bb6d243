/** Something the caller can put right: one line on standard error, exit code 2. */
export class UsageError extends Error {}
