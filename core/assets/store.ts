import type { Asset } from './asset';

const store = new Map<string, Asset | null>();

/** What is kept under a fingerprint, for every evaluation in this place. */
export function assetOf(fingerprint: string): Asset | undefined {
  return store.get(fingerprint) ?? undefined;
}

/** Makes a file known; null for one that cannot be had, so that nobody waits for it. */
export function provideAsset(fingerprint: string, asset: Asset | null): void {
  store.set(fingerprint, asset);
}

/** Whether it is known, or known not to be had. */
export function isSettled(fingerprint: string): boolean {
  return store.has(fingerprint);
}
