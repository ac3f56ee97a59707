/// <reference lib="webworker" />
import { scope } from '../../view/stage/worker-scope';
import { writeRadiance } from '@maypole/core/files/radiance';
import { FileTrouble } from '@maypole/core/assets/trouble';
import { readLight } from './read-light';

export type FromLightWorker =
  { readonly bytes: Uint8Array<ArrayBuffer>; readonly mended: string } | { readonly trouble: string };

scope.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => {
  try {
    const { light, mended } = readLight(new Uint8Array(data));
    const bytes = writeRadiance(light) as Uint8Array<ArrayBuffer>;
    scope.postMessage({ bytes, mended } satisfies FromLightWorker, [bytes.buffer]);
  } catch (error) {
    const trouble =
      error instanceof FileTrouble ? error.message : 'there is not enough memory to read it; make it smaller.';
    scope.postMessage({ trouble } satisfies FromLightWorker);
  }
};
