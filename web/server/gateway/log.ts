import { mkdirSync } from 'node:fs';
import pino, { type Logger } from 'pino';
import { createStream } from 'rotating-file-stream';

declare global {
  var maypoleLog: Logger | undefined;
}

/** Most rotated log files, and the size of each. */
const FILES = 9;
const SIZE = '10M';

/**
 * The log: JSON, one line per event, in `folder` if there is one. One per process, whichever part of the application
 * asks.
 */
export function log(): Logger {
  return (globalThis.maypoleLog ??= make(process.env.MAYPOLE_LOGS));
}

/**
 * A line without the parameters of a failed query: they hold what people made, and digests of secrets. The query
 * library appends them to its message.
 */
export function withoutValues(line: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(line).map(([name, value]) => [
      name,
      typeof value === 'string' ? value.replace(/(^|\n)params: [\s\S]*?(?=\n {4}at |$)/g, '$1params: left out') : value,
    ]),
  );
}

function make(folder: string | undefined): Logger {
  const options = { base: null, timestamp: pino.stdTimeFunctions.isoTime, formatters: { log: withoutValues } };
  if (!folder) return pino({ ...options, enabled: process.env.MAYPOLE_LOG !== undefined }, pino.destination(2));
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const stream = createStream((_time, index) => (index ? `maypole.${index}.jsonl` : 'maypole.jsonl'), {
    path: folder,
    mode: 0o600,
    size: SIZE,
    maxFiles: FILES,
    rotate: FILES,
  });
  // A full disk stops the log, and nothing else.
  stream.on('error', () => undefined);
  return pino(options, stream);
}
