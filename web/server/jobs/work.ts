import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { FilmProblem, filmMovie } from '@maypole/render/outputs/film';
import type { z } from 'zod';
import { keepAsset, keepAssets } from '../pieces/assets';
import { writeBundle } from '../pieces/bundle';
import { createBody, lookBody, saveBody, takeBody } from '../../contract/pieces';
import { database } from '../data/db';
import { fileName } from '../http/file-name';
import { AppError } from '../http/app-error';
import { parseJson } from '../http/body';
import { keepLook } from '../pieces/looks';
import { beginAnew, createRender, type RenderAsked } from '../render/create';
import { keepTidy } from '../upkeep/upkeep';
import { createPiece, duplicatePiece, keepTake, loadPiece, savePiece } from '../pieces/pieces';
import type { JobName } from './limits';

const read = <T>(body: Uint8Array, schema: z.ZodType<T>): T => parseJson(Buffer.from(body), schema);

/** A file written by a job, to be sent and deleted. */
interface Made {
  readonly file: string;
  readonly name: string;
}

/** The jobs, as run in their process. */
export const WORK = {
  async savePiece({ id, body, by }: { id: string; body: Uint8Array; by: string }) {
    return savePiece(database(), id, { ...read(body, saveBody), by });
  },
  async keepTake({ id, body, by }: { id: string; body: Uint8Array; by: string }) {
    return keepTake(database(), id, { ...read(body, takeBody), madeBy: by });
  },
  async createPiece({ file, by }: { file: string; by: string }) {
    const { source, assets } = read(await readFile(file), createBody);
    if (assets) await keepAssets(database(), assets, by);
    return createPiece(database(), source, by);
  },
  duplicatePiece: ({ id, by }: { id: string; by: string }) => duplicatePiece(database(), id, by),
  async exportPiece({ id, folder }: { id: string; folder: string }): Promise<Made> {
    const { source } = await loadPiece(database(), id);
    const file = path.join(folder, 'piece.json');
    await writeBundle(database(), source, file);
    return { file, name: fileName(source) };
  },
  async keepAsset({ name, file, by }: { name: string; file: string; by: string }) {
    return keepAsset(database(), name, await readFile(file), by);
  },
  async keepLook({ body }: { body: Uint8Array }) {
    const { kind, source } = read(body, lookBody);
    return keepLook(database(), kind, source);
  },
  async sheetMovie({ file, pictures, fps, folder }: { file: string; pictures: number; fps: number; folder: string }) {
    try {
      return await filmMovie(file, pictures, fps, path.join(folder, 'film'));
    } catch (error) {
      throw error instanceof FilmProblem ? new AppError(400, error.message) : error;
    }
  },
  createRender: (asked: RenderAsked) => createRender(database(), asked),
  beginAnew: (_given: undefined) => beginAnew(database()),
  keepTidy: (_given: undefined) => keepTidy(database()),
} satisfies Record<JobName, (given: never) => Promise<unknown>>;

export type Work = typeof WORK;
