import { open } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { MadeFile } from '@maypole/render/deliver';
import { sql } from 'drizzle-orm';
import { ZipFile } from 'yazl';
import type { Database } from '../data/db';
import { attachment } from '../http/file-name';
import { AppError } from '../http/app-error';
import { filesFolder } from './room';

const TYPES: Readonly<Record<string, string>> = {
  mp4: 'video/mp4',
  webm: 'video/webm',
  mov: 'video/quicktime',
  png: 'image/png',
  gif: 'image/gif',
  webp: 'image/webp',
  avif: 'image/avif',
  glb: 'model/gltf-binary',
};

/** Files of an output, streamed: one as it is, several in a zip that only holds them together. */
export async function sendFiles(db: Database, render: string, id: string): Promise<Response> {
  const { rows } = await db.execute<{ files: readonly MadeFile[] | null; base: string }>(
    sql`select files, base from render_files where id = ${id} and render_id = ${render}`,
  );
  if (!rows[0]?.files) throw new AppError(404, 'This output is not made, or was cleared.');
  const { files, base } = rows[0];
  const folder = filesFolder(id);
  const [first] = files;
  const missing = () =>
    new AppError(404, 'The files of this output are lost; start the render again, and only they are made.');
  if (files.length === 1) {
    const handle = await open(path.join(folder, first.name)).catch(() => {
      throw missing();
    });
    const { size } = await handle.stat();
    return answer(Readable.toWeb(handle.createReadStream()) as ReadableStream, path.basename(first.name), size);
  }
  const zip = new ZipFile();
  for (const { name } of files) zip.addFile(path.join(folder, name), name, { compress: false });
  const stream = zip.outputStream as Readable;
  zip.on('error', () => stream.destroy(missing()));
  zip.end();
  return answer(Readable.toWeb(stream) as ReadableStream, `${path.posix.basename(base)}.zip`);
}

function answer(body: ReadableStream, name: string, size?: number): Response {
  return new Response(body, {
    headers: {
      'Content-Type': TYPES[name.split('.').at(-1)!] ?? 'application/octet-stream',
      'Content-Disposition': attachment(name),
      ...(size !== undefined ? { 'Content-Length': `${size}` } : {}),
    },
  });
}
