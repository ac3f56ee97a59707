import type { Asset } from '../assets/asset';
import { assetOf, isSettled, provideAsset } from '../assets/store';
import type { Piece, RibbonDoc } from '../piece/piece';
import { ownersOf } from '../piece/walk';
import { stepKind } from '../steps/index';

export { assetOf, provideAsset };

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

const pictured = new WeakMap<Piece, readonly string[]>();

/** Fingerprints of the files that a picture needs besides those of its shapes: from finishes and scene. */
export function assetsOfPicture(piece: Piece): readonly string[] {
  let names = pictured.get(piece);
  if (!names) {
    const named = ownersOf(piece).flatMap(({ owner, item, params }) =>
      owner.type === 'step'
        ? []
        : Object.entries(params)
            .filter(([name, p]) => p.type === 'asset' && item.values[name] !== '')
            .map(([name]) => item.values[name] as string),
    );
    pictured.set(piece, (names = [...new Set(named)]));
  }
  return names;
}

/** A file that does not exist anywhere: there is nothing to wait for. */
export class MissingAsset extends Error {
  override readonly name = 'MissingAsset';
}

/**
 * Fetches the libraries and files that a linked ribbon needs; null if all are here. Files that do not exist are left
 * out, and their steps say so; if fetching fails the promise rejects, so that it is tried again.
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
  const files = makeFilesReady(assetsIn(ribbon), fetchAsset);
  if (files) waits.push(files);
  return waits.length > 0 ? Promise.all(waits).then(() => undefined) : null;
}

/** The same for files by fingerprint. */
export function makeFilesReady(
  names: readonly string[],
  fetchAsset: (fingerprint: string) => Promise<Asset>,
): Promise<void> | null {
  const waits = names
    .filter((name) => !isSettled(name))
    .map((name) =>
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
