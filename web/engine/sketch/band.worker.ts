/// <reference lib="webworker" />
import { writeImage } from '@maypole/core/assets/image';
import type { Mesh } from '@maypole/core/shape/mesh';
import { scope } from '../../view/stage/worker-scope';
import { sketch } from './sketch';

/** A small picture of a shape in one tone, requested by number. */
export interface BandJob {
  readonly id: number;
  readonly mesh: Mesh;
  /** Width and height in pixels. */
  readonly size: number;
  readonly tone: string;
}

export interface BandDrawn {
  readonly id: number;
  /** A PNG. */
  readonly file: Uint8Array<ArrayBuffer>;
}

scope.onmessage = ({ data: { id, mesh, size, tone } }: MessageEvent<BandJob>) => {
  const file = writeImage(new Uint8Array(sketch(mesh, size, tone)), size, size);
  scope.postMessage({ id, file } satisfies BandDrawn, [file.buffer]);
};
