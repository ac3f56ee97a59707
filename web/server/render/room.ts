import { statfs } from 'node:fs/promises';
import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { SheetStore } from '@maypole/render/frame/keep';
import { AppError } from '../http/app-error';

/** Bytes that stay free on the disk, whatever is rendered. */
const LEFT_FREE = 2e9;

/** Where finished frames and files are. */
export function rendersFolder(): string {
  const folder = process.env.MAYPOLE_RENDERS ?? path.join(process.cwd(), '.maypole/renders');
  if (!existsSync(folder)) mkdirSync(folder, { recursive: true });
  return folder;
}

export const sheetStore = () => new SheetStore(path.join(rendersFolder(), 'frames'));

/** The folder of a render's files. */
export const filesFolder = (render: string) => path.join(rendersFolder(), 'files', render);

/** Bytes that are free on the disk of renders. */
export async function freeBytes(): Promise<number> {
  const { bavail, bsize } = await statfs(rendersFolder());
  return bavail * bsize;
}

/** @throws AppError 507 where so many bytes more would fill the disk */
export async function assertDisk(bytes: number): Promise<void> {
  const free = await freeBytes();
  if (free - bytes < LEFT_FREE)
    throw new AppError(
      507,
      `Only ${(free / 1e9).toFixed(1)} GB are free on the disk of renders, and ${LEFT_FREE / 1e9} GB stay ` +
        'free. Clear old renders, then try again.',
    );
}
