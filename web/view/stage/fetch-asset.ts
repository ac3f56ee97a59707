import { MissingAsset } from '@maypole/core/evaluate/assets';
import { readAsset } from '@maypole/core/files/kept';
import type { Asset } from '@maypole/core/assets/asset';

/** Fetches a file kept with the pieces and parses it. */
export async function fetchAsset(fingerprint: string): Promise<Asset> {
  const response = await fetch(`/api/assets/${fingerprint}`);
  if (response.status === 404) throw new MissingAsset(`The server has no file ${fingerprint}.`);
  if (!response.ok) throw new Error('A file of this piece could not be fetched from the server.');
  return readAsset(new Uint8Array(await response.arrayBuffer()));
}
