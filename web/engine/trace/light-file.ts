import type { FromLightWorker } from './light.worker';

/** Largest environment map file that is read, in bytes. */
const MOST_BYTES = 256 * 1024 * 1024;

/** Converts an environment map to its stored form, in its own worker. @throws Error in words for the user */
export async function readLightFile(file: File): Promise<{ bytes: Blob; mended: string }> {
  if (file.size > MOST_BYTES)
    throw new Error(`this is ${Math.round(file.size / 1024 / 1024)} MB; a picture of light may have 256 MB.`);
  const bytes = await file.arrayBuffer();
  const worker = new Worker(new URL('./light.worker.ts', import.meta.url), { type: 'module' });
  try {
    const answer = await new Promise<FromLightWorker>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<FromLightWorker>) => resolve(data);
      worker.onerror = () => reject(new Error('there is not enough memory to read it; make it smaller.'));
      worker.postMessage(bytes, [bytes]);
    });
    if ('trouble' in answer) throw new Error(answer.trouble);
    return { bytes: new Blob([answer.bytes]), mended: answer.mended };
  } finally {
    worker.terminate();
  }
}
