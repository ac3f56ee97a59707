/** Limits for one client, and for all together. docs/limits.md states them for users. */
export const FRONT = {
  /** Milliseconds for the headers of a request to arrive. */
  headers: 10_000,
  /** Milliseconds that a body may stall. */
  idle: 20_000,
  /** Milliseconds for a whole request to arrive. */
  whole: 600_000,
  /** Milliseconds given to requests under way when the server ends. */
  drain: 10_000,
  /** Milliseconds, and bytes, for which an unwanted body is drained. */
  linger: 2000,
  lingerBytes: 2 * 1024 ** 2,
  /** Largest body on any route in bytes; each route has its own limit below it. */
  body: 152 * 1024 * 1024,
  /** Connections of one client, and of all. */
  connections: 256,
  allConnections: 2000,
  /** Most concurrent requests of one client. */
  requests: 96,
  /** Of those, this many are worked on at once, so that one client never fills the whole queue. */
  together: 8,
  /** Token bucket for requests of one client: burst, and rate per second. */
  burst: 1500,
  perSecond: 60,
  /** Token bucket for bytes sent by one client: burst, and rate per second. */
  bytes: 2 * 1024 ** 3,
  bytesPerSecond: 32 * 1024 ** 2,
} as const;

export type FrontFigures = { readonly [K in keyof typeof FRONT]: number };
