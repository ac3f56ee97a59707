import type { Asset } from './asset';

const store = new Map<string, Asset | null>();

/** The file with this SHA-256, for every evaluation in this thread. */
export function assetOf(fingerprint: string): Asset | undefined {
  return store.get(fingerprint) ?? undefined;
}

/** Registers a file; null for one that cannot be had, so that nobody waits for it. */
export function provideAsset(fingerprint: string, asset: Asset | null): void {
  store.set(fingerprint, asset);
}

/** Whether the file is registered, or known to be unavailable. */
export function isSettled(fingerprint: string): boolean {
  return store.has(fingerprint);
}
