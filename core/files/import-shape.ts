import type { Mesh } from '../shape/mesh';
import { readObj } from './obj';
import { readPly } from './ply';
import { readStl } from './stl';
import { FileTrouble } from '../assets/trouble';

/** File extensions that can be imported as a form. */
export const SHAPE_FILES = ['.glb', '.gltf', '.obj', '.ply', '.stl'];

/** Reads a shape by its file extension. @throws FileTrouble in words for the user */
export async function importShape(name: string, bytes: Uint8Array): Promise<Mesh> {
  const ending = /\.[a-z0-9]+$/i.exec(name)?.[0].toLowerCase() ?? '';
  if (bytes.length === 0) throw new FileTrouble(`“${name}” is empty.`);
  switch (ending) {
    case '.glb':
    case '.gltf': {
      const { readGltf } = await import('./gltf');
      return readGltf(bytes);
    }
    case '.obj':
      return readObj(bytes);
    case '.ply':
      return readPly(bytes);
    case '.stl':
      return readStl(bytes);
    default:
      throw new FileTrouble(
        `“${name}” is not a shape that can be taken in; use a file that ends in ${SHAPE_FILES.join(', ')}.`,
      );
  }
}
