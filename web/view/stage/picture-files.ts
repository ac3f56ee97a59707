import { makeFilesReady } from '@maypole/core/evaluate/assets';
import { fetchAsset } from './fetch-asset';
import type { ViewFrame } from './frame';

/**
 * Fetches the files that a frame cannot be drawn without. A missing one is left out, and requested again with the next
 * frame.
 */
export async function pictureFiles({ files }: Pick<ViewFrame, 'files'>): Promise<void> {
  await makeFilesReady(files, fetchAsset)?.catch(() => undefined);
}
