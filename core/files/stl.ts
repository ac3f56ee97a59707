import { welded } from '../shape/weld';
import type { Mesh } from '../shape/mesh';
import { boundsOf } from '../shape/measure';
import { SamePoints } from '../shape/same-points';
import { Soup } from './soup';
import { checkCounts, FileTrouble } from '../assets/trouble';
import { Words } from './words';

/** Reads STL triangles, text or binary; coincident corners are merged. */
export function readStl(bytes: Uint8Array): Mesh {
  const soup = new Soup();
  // Every triangle has its own corners in the file: those equal in every bit become one, and count once.
  const same = new SamePoints();
  const corner = (x: number, y: number, z: number) => {
    const at = same.first(x, y, z, soup.points);
    if (at === soup.points) soup.point(x, y, z);
    return at;
  };
  const triangle = (p: readonly number[]) => {
    const [a, b, c] = [0, 3, 6].map((i) => corner(p[i], p[i + 1], p[i + 2]));
    if (a !== b && b !== c && c !== a) soup.face([a, b, c]);
  };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= 84 ? view.getUint32(80, true) : -1;
  // Binary files may begin with “solid” too; only their length tells them apart.
  if (bytes.length === 84 + 50 * count) {
    checkCounts(0, count);
    for (let t = 0; t < count; t++)
      triangle(Array.from({ length: 9 }, (_, i) => view.getFloat32(84 + 50 * t + 12 + 4 * i, true)));
  } else {
    readText(bytes, count, triangle);
  }
  const mesh = soup.finish();
  const bounds = boundsOf(mesh.positions)!;
  return welded(mesh, 1e-6 * Math.max(...bounds.max.map((x, k) => x - bounds.min[k])));
}

/** Reads corners from text; every three make a triangle. */
function readText(bytes: Uint8Array, claimed: number, triangle: (p: readonly number[]) => void): void {
  const words = new Words(bytes);
  if (!words.wordAnywhere().startsWith('solid'))
    throw new FileTrouble(
      claimed > 0
        ? `The file breaks off: it claims ${claimed} triangles, and ${bytes.length} bytes hold fewer. Fetch it again.`
        : 'This is not an STL file.',
    );
  let triangles = 0;
  let corners: number[] = [];
  let ended = false;
  for (let word = words.wordAnywhere(); word !== ''; word = words.wordAnywhere()) {
    if (word === 'endsolid') ended = true;
    else if (word === 'vertex') {
      for (let k = 0; k < 3; k++) corners.push(words.number());
      if (corners.length < 9) continue;
      checkCounts(0, ++triangles);
      triangle(corners);
      corners = [];
    }
  }
  if (!ended) throw new FileTrouble('The file breaks off before its end (endsolid); fetch it again.');
  if (corners.length > 0)
    throw new FileTrouble('The last triangle of the file has fewer than three corners; export it again.');
}
