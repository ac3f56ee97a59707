import { assetsWith } from './assets';
import type { Database } from './db';

/** A document as it leaves: with the files it names, or, naming none, to the letter as it is stored. */
export async function carried(db: Database, source: string): Promise<string> {
  const assets = await assetsWith(db, source);
  return Object.keys(assets).length > 0 ? JSON.stringify({ maypole: 'parcel', piece: source, assets }) : source;
}
