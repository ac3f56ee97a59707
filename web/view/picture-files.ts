import { makeFilesReady } from '@maypole/core/evaluate/assets';
import { fetchAsset } from './fetch-asset';
import type { ViewFrame } from './frame';

/**
 * Fetches the files that a frame cannot be drawn without. Where one cannot be fetched it is drawn without it,
 * and asked for again with the next.
 */
export async function pictureFiles({ files }: Pick<ViewFrame, 'files'>): Promise<void> {
  await makeFilesReady(files, fetchAsset)?.catch(() => undefined);
}
