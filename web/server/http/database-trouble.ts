/** What is said where the database cannot do what was asked for now, and how it is answered. */
export interface Trouble {
  readonly status: 503 | 507;
  readonly words: string;
}

/** Codes of the system, and classes and codes of PostgreSQL (appendix A), of a database that is away. */
const AWAY = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', '57P01', '57P02', '57P03', '53300'];
/** Connections that were cut say so in words only. */
const CUT = /^Connection terminated|server closed the connection|timeout exceeded when trying to connect/;
/** disk_full, and the system’s own word for it. */
const FULL = ['53100', 'ENOSPC', 'EDQUOT'];

/** Tells a database that is away, or without room, from a fault of ours; undefined for the latter. */
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
    // Of several addresses that were tried, each has its own.
    if ('errors' in cause && Array.isArray(cause.errors) && cause.errors.length > 0) {
      const inner = databaseTrouble(cause.errors[0]);
      if (inner) return inner;
    }
  }
  return undefined;
}
