import { createHash } from 'node:crypto';
import { createReadStream, closeSync, fsyncSync, openSync, readSync, statSync, writeSync } from 'node:fs';
import { Stop } from './say.mjs';

/*
 * A backup is PostgreSQL's own archive with a seal behind it: what the archive holds, table by table, as JSON, and then
 * one line of fixed length with the length of that JSON and the SHA-256 of all bytes before the line. pg_restore reads
 * by the places in its own table of contents, and never comes to the seal.
 */
const FOOTER = /^maypole-backup 1 (\d{12}) ([0-9a-f]{64})\n$/;
const FOOTER_BYTES = 'maypole-backup 1 '.length + 12 + 1 + 64 + 1;

/** SHA-256, in hexadecimal, of the first `bytes` bytes of a file. */
async function sumOf(file, bytes) {
  const hash = createHash('sha256');
  if (bytes > 0) for await (const chunk of createReadStream(file, { end: bytes - 1 })) hash.update(chunk);
  return hash.digest('hex');
}

/**
 * Appends the seal to an archive, and flushes both to disk before it returns.
 *
 * @param facts what `factsOf` found in the database at the snapshot of the archive
 */
export async function seal(file, facts) {
  const text = JSON.stringify(facts);
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(file)) hash.update(chunk);
  const sum = hash.update(text).digest('hex');
  const length = String(Buffer.byteLength(text)).padStart(12, '0');
  const handle = openSync(file, 'a');
  try {
    writeSync(handle, `${text}maypole-backup 1 ${length} ${sum}\n`);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

function readAt(file, place, bytes) {
  const handle = openSync(file, 'r');
  try {
    const buffer = Buffer.alloc(bytes);
    return buffer.toString('utf8', 0, readSync(handle, buffer, 0, bytes, place));
  } finally {
    closeSync(handle);
  }
}

/**
 * Reads a backup from end to end and compares it with its SHA-256.
 *
 * @returns its facts; undefined if it has no seal (an earlier Maypole wrote it, or its end is missing)
 * @throws Stop if a single bit has changed
 */
export async function checkSeal(file) {
  const { size } = statSync(file);
  const footer = size < FOOTER_BYTES ? '' : readAt(file, size - FOOTER_BYTES, FOOTER_BYTES);
  const found = FOOTER.exec(footer);
  if (!found) return undefined;
  const body = size - FOOTER_BYTES;
  if (Number(found[1]) > body || (await sumOf(file, body)) !== found[2])
    throw new Stop(
      `${file} is damaged: its bytes are not those that its SHA-256 was made of. Nothing was touched; use another backup.`,
    );
  return JSON.parse(readAt(file, body - Number(found[1]), Number(found[1])));
}
