'use client';

import { Box, Text } from '@chakra-ui/react';
import type { RenderSummary, WorkerSummary } from '@/contract/renders';
import { fileSize, inWords } from '../parts/words';

/** What a whole render would take, extrapolated from a few finished frames. */
export function EstimateWords({
  render,
  frames,
  workers,
  stale,
}: {
  render: RenderSummary;
  frames: number;
  workers: readonly WorkerSummary[];
  stale: boolean;
}) {
  const { state, done, each, memory, files } = render;
  if (state === 'failed') return <Words trouble>The sample could not be made: {render.message}</Words>;
  if (state !== 'done')
    return (
      <Words>
        A sample is made: {done} of {render.frames} frames{state === 'files' ? ', then files' : ''}…
      </Words>
    );
  const seconds = each === null ? 0 : each * Math.max(0, frames - done);
  const sheets = ((render.bytes - files.reduce((n, f) => n + (f.bytes ?? 0), 0)) / render.frames) * frames;
  const made = (files.reduce((n, f) => n + (f.bytes ?? 0), 0) / render.frames) * frames;
  return (
    <Words>
      {each === null ? 'The frames are there already' : capital(timeWords(seconds, workers, render))},{' '}
      {fileSize(Math.round(sheets))} for frames, at most about {fileSize(Math.round(made))} of files
      {memory ? `, ${memory} MB of memory` : ''}.{stale && ' Told of the piece before its last change.'}
    </Words>
  );
}

/** Seconds of silence after which a machine no longer counts. */
const SILENT = 60;

/** Whether a worker takes frames of this kind of light now. */
export const worksOn = ({ light, silent, other }: WorkerSummary, asked: WorkerSummary['light']): boolean =>
  light === asked && silent < SILENT && !other;

/** Duration with one machine, and with all that are connected, as if they were equally fast. */
export function timeWords(
  seconds: number,
  workers: readonly WorkerSummary[],
  { order }: Pick<RenderSummary, 'order'>,
): string {
  const here = workers.filter((w) => worksOn(w, order.light));
  if (here.length < 2) return `${inWords(seconds)} with one machine like this`;
  return `${inWords(seconds / here.length)} with the ${here.length} machines that are here, ${inWords(seconds)} with one`;
}

const capital = (text: string) => text[0].toUpperCase() + text.slice(1);

function Words({ children, trouble = false }: { children: React.ReactNode; trouble?: boolean }) {
  return (
    <Box mb="2" data-testid="estimate" role="status">
      <Text fontSize="12.5px" lineHeight="1.5" color={trouble ? 'poppyText' : 'muted'}>
        {children}
      </Text>
    </Box>
  );
}
