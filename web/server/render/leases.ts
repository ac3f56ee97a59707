import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { KeptFrameImage } from '@maypole/render/frame/keep';
import type { PartFigures, PartWork } from '@maypole/render/work/source';
import type { Database } from '../data/db';
import { claimCheck, giveBackCheck, failCheck, finishCheck, renderOfCheck, renewCheck } from './made-again';
import { claimPart, failPart, giveBackPart, finishPart, leasedPart, renewLease } from './queue';
import { waitsForRoom } from './room';
import type { Worker } from './worker';

/** Operations under a lease, whether a frame is wanted or made a second time. */

/** Claims the next work: wanted frames first. None while the disk is full. */
export async function claimWork(db: Database, worker: Worker): Promise<PartWork | undefined> {
  if (await waitsForRoom()) return undefined;
  return (await claimPart(db, worker)) ?? claimCheck(db, worker);
}

/** Renews a lease. False if it is no longer the worker's. */
export async function renewWork(db: Database, lease: string): Promise<boolean> {
  return (await renewLease(db, lease)) || renewCheck(db, lease);
}

/** Returns work: it waits again at once, and this was no attempt. */
export async function giveBackWork(db: Database, lease: string): Promise<void> {
  await giveBackPart(db, lease);
  await giveBackCheck(db, lease);
}

/** The render of a lease. @throws AppError 409 if the lease has ended */
export async function renderOfLease(db: Database, lease: string): Promise<string> {
  return (await renderOfCheck(db, lease)) ?? (await leasedPart(db, lease)).render_id;
}

/**
 * Completes work.
 *
 * @param whole checks whether all wanted frame images arrived as they were sent
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

/** Reports work that could not be done. */
export async function failWork(db: Database, lease: string, message: string, forGood: boolean): Promise<void> {
  if (await renderOfCheck(db, lease)) return failCheck(db, lease);
  await failPart(db, lease, message, forGood);
}
