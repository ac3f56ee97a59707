/** What one client, and all together, may ask of the server at a time. docs/limits.md states them for users. */
export const FRONT = {
  /** Milliseconds in which the headers of a request must have come. */
  headers: 10_000,
  /** Milliseconds that a body may stand still. */
  idle: 20_000,
  /** Milliseconds a whole request may take to come. */
  whole: 600_000,
  /** Milliseconds that requests under way are given when the server ends. */
  drain: 10_000,
  /** Milliseconds, and bytes, that a body nobody wants is still taken for, so that the answer is not lost. */
  linger: 2000,
  lingerBytes: 2 * 1024 ** 2,
  /** Bytes of the largest body on any route; each route has a limit of its own below it. */
  body: 152 * 1024 * 1024,
  /** Connections of one client, and of all. */
  connections: 256,
  allConnections: 2000,
  /** Requests of one client that are under way at once. */
  requests: 96,
  /** Of those, so many are worked on; the others wait for them, so that one client never fills the whole line. */
  together: 8,
  /** Requests of one client: so many at once after a pause, and so many a second for good. */
  burst: 1500,
  perSecond: 60,
  /** Bytes that one client sends: so many at once after a pause, and so many a second for good. */
  bytes: 2 * 1024 ** 3,
  bytesPerSecond: 32 * 1024 ** 2,
} as const;

export type FrontFigures = { readonly [K in keyof typeof FRONT]: number };
