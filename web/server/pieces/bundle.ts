import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { assetsWith } from './assets';
import type { Database } from '../data/db';

/** Bytes converted to base64 at a time: a multiple of three, so that the parts join. */
const CHUNK = 3 * 256 * 1024;

/**
 * A document as exported: with the files it names or, naming none, exactly as stored. Generated in parts, so that its
 * files are never all in memory.
 */
export async function* carried(db: Database, source: string): AsyncGenerator<string> {
  let count = 0;
  for await (const { fingerprint, name, bytes } of assetsWith(db, source)) {
    yield count++ === 0 ? `{"maypole":"parcel","piece":${JSON.stringify(source)},"assets":{` : '},';
    yield `"${fingerprint}":{"name":${JSON.stringify(name)},"data":"`;
    for (let at = 0; at < bytes.length; at += CHUNK) yield bytes.toString('base64', at, at + CHUNK);
    yield '"';
  }
  yield count === 0 ? source : '}}}';
}

/** Writes the same to a file, which must not exist. */
export async function writeBundle(db: Database, source: string, file: string): Promise<void> {
  await pipeline(Readable.from(carried(db, source)), createWriteStream(file, { flags: 'wx' }));
}
