import type { Asset } from '../assets/asset';
import { isPng, readImage } from '../assets/image';
import { readPgm } from './pgm';
import { readPly } from './ply';
import { readRadiance } from './radiance';

/** A kind of file that a piece may keep, recognised by its first bytes. */
interface KeptKind {
  /** The extension of files that are kept unchanged. */
  readonly ending: string;
  is(bytes: Uint8Array): boolean;
  /** @throws FileTrouble in words for the user */
  read(bytes: Uint8Array): Asset;
}

const begins = (text: string) => (bytes: Uint8Array) => [...text].every((c, i) => bytes[i] === c.charCodeAt(0));

const keptKinds: readonly KeptKind[] = [
  { ending: '.pgm', is: begins('P5'), read: (bytes) => ({ type: 'picture', picture: readPgm(bytes) }) },
  { ending: '.png', is: isPng, read: (bytes) => ({ type: 'image', image: readImage(bytes) }) },
  { ending: '.hdr', is: begins('#?'), read: (bytes) => ({ type: 'light', light: readRadiance(bytes) }) },
  { ending: '.ply', is: begins('ply'), read: (bytes) => ({ type: 'shape', mesh: readPly(bytes) }) },
];

/** Decodes a kept file. @throws FileTrouble in words for the user */
export function readAsset(bytes: Uint8Array): Asset {
  const kind = keptKinds.find((k) => k.is(bytes)) ?? keptKinds[keptKinds.length - 1];
  return kind.read(bytes);
}

/** Whether the name is that of a picture that is kept unchanged. */
export function isKeptPicture(name: string): boolean {
  return keptKinds.some((k) => k.ending !== '.ply' && name.toLowerCase().endsWith(k.ending));
}

/** The size of a file, in words. */
export function assetWords(asset: Asset): string {
  if (asset.type === 'shape') {
    const { connectivity } = asset.mesh;
    return `${connectivity.vertexCount} points, ${connectivity.faceStart.length - 1} faces`;
  }
  const { width, height } =
    asset.type === 'picture' ? asset.picture : asset.type === 'image' ? asset.image : asset.light;
  return `${width} × ${height} pixels`;
}
