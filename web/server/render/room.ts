import { statfs } from 'node:fs/promises';
import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { FrameImageStore } from '@maypole/render/frame/keep';
import { AppError } from '../http/app-error';

/** Gigabytes that stay free on the disk, whatever is rendered. */
const leftFree = () => Number(process.env.MAYPOLE_LEAVE_FREE_GIGABYTES) || 2;

/** Where finished frames and files are. */
function rendersFolder(): string {
  const folder = process.env.MAYPOLE_RENDERS ?? path.join(process.cwd(), '.maypole/renders');
  if (!existsSync(folder)) mkdirSync(folder, { recursive: true });
  return folder;
}

export const frameImageStore = () => new FrameImageStore(path.join(rendersFolder(), 'frames'));

/** The folder of a render's files. */
export const filesFolder = (render: string) => path.join(rendersFolder(), 'files', render);

/** Bytes that are free on the disk of renders. */
export async function freeBytes(): Promise<number> {
  const { bavail, bsize } = await statfs(rendersFolder());
  return bavail * bsize;
}

/** Why so many bytes more are not written, in words; null where there is room for them. */
async function fullness(bytes: number): Promise<string | null> {
  const free = await freeBytes();
  return free - bytes < leftFree() * 1e9
    ? `Only ${(free / 1e9).toFixed(1)} GB are free on the disk of renders, and ${leftFree()} GB stay free.`
    : null;
}

/** @throws AppError 507 where so many bytes more would fill the disk */
export async function assertDisk(bytes: number): Promise<void> {
  const full = await fullness(bytes);
  if (full) throw new AppError(507, `${full} Clear old renders, then try again.`);
}

/** Why renders wait for room on the disk; null where they do not. Nothing is begun meanwhile, so that nothing fails for it. */
export async function waitsForRoom(): Promise<string | null> {
  const full = await fullness(0);
  return (
    full &&
    `Renders wait: ${full[0].toLowerCase()}${full.slice(1)} They go on by themselves once old renders are cleared.`
  );
}

/** Whether something could not be written since the disk is full. */
export function isFull(error: unknown): boolean {
  if (error instanceof AppError) return error.status === 507;
  const { code, message } = error as { code?: string; message?: string };
  return code === 'ENOSPC' || code === 'EDQUOT' || /ENOSPC|no space left/i.test(message ?? '');
}
