import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { jsonTooLarge } from '@maypole/core/declare/json-shape';
import type { z } from 'zod';
import { AppError } from './app-error';
import { wordsFor } from '../../contract/fields';

/** The body as a stream that fails as soon as it exceeds `limit` bytes. */
async function* bounded(request: Request, limit: number): AsyncGenerator<Uint8Array> {
  const tooLong = () =>
    new AppError(
      413,
      limit < 1024 ** 2
        ? `This is larger than ${limit} bytes, the most that is taken here.`
        : `This is larger than ${Math.floor(limit / 1024 ** 2)} MB, the most that is taken.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw tooLong();
  if (!request.body) return;
  let size = 0;
  for await (const chunk of Readable.fromWeb(request.body as Parameters<typeof Readable.fromWeb>[0])) {
    const bytes = chunk as Uint8Array;
    size += bytes.byteLength;
    if (size > limit) throw tooLong();
    yield bytes;
  }
}

/** The whole body. */
export async function readBody(request: Request, limit: number): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of bounded(request, limit)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

/** Runs `work` with a temporary folder. */
export async function withFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(tmpdir(), 'maypole-body-'));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Writes the body to a file, never holding it in memory; returns the path. */
export async function bodyFile(request: Request, limit: number, folder: string): Promise<string> {
  const file = path.join(folder, 'body');
  await pipeline(bounded(request, limit), createWriteStream(file));
  return file;
}

/** More than any of our pages sends: a kept part within a document within a request. */
const LARGEST_BODY = { depth: 250, values: 2_000_000 };

/** Parses JSON and checks it against a schema. */
export function parseJson<T>(body: Buffer, schema: z.ZodType<T>): T {
  const text = body.toString('utf8');
  const tooLarge = jsonTooLarge(text, LARGEST_BODY);
  if (tooLarge !== undefined) throw new AppError(400, `The request is more than is read here: ${tooLarge}.`);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new AppError(400, 'The request is not JSON.');
  }
  return schema.parse(value, { error: wordsFor });
}
