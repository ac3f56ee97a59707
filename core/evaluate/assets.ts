import type { Piece, RibbonDoc } from '../piece/piece';
import { stepKind } from '../steps/index';
import type { Asset } from '../steps/step';

const store = new Map<string, Asset | null>();

/** What is kept under a fingerprint, for every evaluation in this place. */
export function assetOf(fingerprint: string): Asset | undefined {
  return store.get(fingerprint) ?? undefined;
}

/** Makes a file known; null for one that cannot be had, so that nobody waits for it. */
export function provideAsset(fingerprint: string, asset: Asset | null): void {
  store.set(fingerprint, asset);
}

/** Steps of a ribbon and of those it names, each once however often it is named. */
function stepsOf(ribbon: RibbonDoc, seen = new Set<RibbonDoc>()): RibbonDoc['steps'] {
  if (seen.has(ribbon)) return [];
  seen.add(ribbon);
  return ribbon.steps.flatMap((s) => [s, ...Object.values(s.others ?? {}).flatMap((r) => stepsOf(r, seen))]);
}

/** Fingerprints of the files that a linked ribbon names. */
export function assetsIn(ribbon: RibbonDoc): string[] {
  return stepsOf(ribbon).flatMap((s) =>
    Object.entries(stepKind(s.kind).params)
      .filter(([name, p]) => p.type === 'asset' && typeof s.values[name] === 'string' && s.values[name] !== '')
      .map(([name]) => s.values[name] as string),
  );
}

export function assetsOfPiece(piece: Piece): string[] {
  return [...new Set(piece.ribbons.flatMap(assetsIn))];
}

/** A file that is not kept anywhere: there is nothing to wait for. */
export class MissingAsset extends Error {
  override readonly name = 'MissingAsset';
}

/**
 * Fetches the libraries and files that a linked ribbon cannot be evaluated without; null when all are
 * here. Files that are nowhere are left out, and their steps say so; where fetching itself fails the
 * promise is rejected, so that it is tried again.
 */
export function makeReady(
  ribbon: RibbonDoc,
  fetchAsset: (fingerprint: string) => Promise<Asset>,
): Promise<void> | null {
  const waits: Promise<void>[] = [];
  for (const s of stepsOf(ribbon)) {
    const { load, loaded } = stepKind(s.kind);
    if (s.on && load && !loaded?.()) waits.push(load());
  }
  for (const name of assetsIn(ribbon))
    if (!store.has(name))
      waits.push(
        fetchAsset(name).then(
          (asset) => provideAsset(name, asset),
          (error: unknown) => {
            if (!(error instanceof MissingAsset)) throw error;
            provideAsset(name, null);
          },
        ),
      );
  return waits.length > 0 ? Promise.all(waits).then(() => undefined) : null;
}
