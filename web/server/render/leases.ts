import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from '@maypole/render/frame/keep';
import type { PartFigures, PartWork } from '@maypole/render/work/source';
import type { Database } from '../data/db';
import { claimCheck, giveBackCheck, failCheck, finishCheck, renderOfCheck, renewCheck } from './made-again';
import { claimPart, failPart, giveBackPart, finishPart, leasedPart, renewLease } from './queue';
import { waitsForRoom } from './room';
import type { Worker } from './worker';

/** What a worker does under a lease, be it a frame that is wanted or one that is made a second time. */

/** The next that is to be made: frames that are wanted go first. None while the disk has no room for it. */
export async function claimWork(db: Database, worker: Worker): Promise<PartWork | undefined> {
  if (await waitsForRoom()) return undefined;
  return (await claimPart(db, worker)) ?? claimCheck(db, worker);
}

/** Goes on with it. False where it is no longer the worker's. */
export async function renewWork(db: Database, lease: string): Promise<boolean> {
  return (await renewLease(db, lease)) || renewCheck(db, lease);
}

/** Gives it back: it waits again at once, and this was no try. */
export async function giveBackWork(db: Database, lease: string): Promise<void> {
  await giveBackPart(db, lease);
  await giveBackCheck(db, lease);
}

/** The render it belongs to. @throws AppError 409 where it is nobody's any more */
export async function renderOfLease(db: Database, lease: string): Promise<string> {
  return (await renderOfCheck(db, lease)) ?? (await leasedPart(db, lease)).render_id;
}

/**
 * It is finished.
 *
 * @param whole looks whether all sheets that are wanted have come as they were sent
 */
export async function finishWork(
  db: Database,
  lease: string,
  sheets: Partial<Record<FrameImageName, KeptFrameImage>>,
  figures: PartFigures,
  whole?: (fingerprint: string, wanted: readonly FrameImageName[]) => Promise<void>,
): Promise<void> {
  if (await renderOfCheck(db, lease)) return finishCheck(db, lease, sheets);
  if (whole) {
    const part = await leasedPart(db, lease);
    await whole(part.fingerprint, part.sheets);
  }
  await finishPart(db, lease, sheets, figures);
}

/** It could not be made. */
export async function failWork(db: Database, lease: string, message: string, forGood: boolean): Promise<void> {
  if (await renderOfCheck(db, lease)) return failCheck(db, lease);
  await failPart(db, lease, message, forGood);
}
