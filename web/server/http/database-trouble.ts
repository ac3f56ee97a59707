/** What to say, and which status to use, while the database cannot answer. */
interface Trouble {
  readonly status: 503 | 507;
  readonly words: string;
}

/** System error codes, and PostgreSQL classes and codes (appendix A), of an unreachable database. */
const AWAY = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', '57P01', '57P02', '57P03', '53300'];
/** Cut connections say so in words only. */
const CUT = /^Connection terminated|server closed the connection|timeout exceeded when trying to connect/;
/** disk_full, and the system's own codes. */
const FULL = ['53100', 'ENOSPC', 'EDQUOT'];

/** Distinguishes an unreachable or full database from a fault of ours; undefined for the latter. */
export function databaseTrouble(error: unknown): Trouble | undefined {
  for (let cause = error; cause instanceof Error; cause = cause.cause) {
    const code = 'code' in cause ? String(cause.code) : '';
    if (FULL.includes(code) || /No space left on device/.test(cause.message))
      return {
        status: 507,
        words:
          'The disk that Maypole keeps its data on is full. Make room on it; what you did is kept here until then.',
      };
    if (AWAY.includes(code) || code.startsWith('08') || CUT.test(cause.message))
      return {
        status: 503,
        words: 'The database is away and is being started again; this is tried again in a moment.',
      };
    // Each of several tried addresses has its own error.
    if ('errors' in cause && Array.isArray(cause.errors) && cause.errors.length > 0) {
      const inner = databaseTrouble(cause.errors[0]);
      if (inner) return inner;
    }
  }
  return undefined;
}
