import { readFile } from 'node:fs/promises';
import { filmQuery, MAX_FILM } from '@/contract/pieces';
import { withFolder } from '@/server/http/body';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';

/**
 * Makes a movie of a sheet of variations: the body is a PNG strip of stacked pictures; `?pictures=&fps=` give their
 * number and rate. Nothing is stored.
 */
export const POST = route({ who: 'look', file: MAX_FILM }, async ({ file, query, visit }) => {
  const { pictures, fps } = filmQuery.parse(Object.fromEntries(query));
  return withFolder(async (folder) => {
    const made = await doJob(visit.who, 'sheetMovie', { file, pictures, fps, folder });
    return new Response(await readFile(made), { headers: { 'Content-Type': 'video/mp4' } });
  });
});
