import { strFromU8 } from 'fflate';
import { welded } from '../shape/weld';
import type { Mesh } from '../shape/mesh';
import { boundsOf } from '../shape/measure';
import { Soup } from './soup';
import { checkCounts, FileTrouble } from './trouble';

/** A shape as triangles in stereolithography format, text or binary; corners that lie together are joined. */
export function readStl(bytes: Uint8Array): Mesh {
  const soup = new Soup();
  const triangle = (p: readonly number[]) => {
    const first = soup.points;
    for (let i = 0; i < 9; i += 3) soup.point(p[i], p[i + 1], p[i + 2]);
    soup.face([first, first + 1, first + 2]);
  };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= 84 ? view.getUint32(80, true) : -1;
  // Binary files may begin with “solid”, too; only their length tells them for certain.
  if (bytes.length === 84 + 50 * count) {
    checkCounts(3 * count, count);
    for (let t = 0; t < count; t++)
      triangle(Array.from({ length: 9 }, (_, i) => view.getFloat32(84 + 50 * t + 12 + 4 * i, true)));
  } else {
    const text = strFromU8(bytes, true);
    if (!/^\s*solid/.test(text))
      throw new FileTrouble(
        count > 0
          ? `The file breaks off: it claims ${count} triangles, and ${bytes.length} bytes hold fewer. Fetch it again.`
          : 'This is not an STL file.',
      );
    if (!/endsolid/.test(text)) throw new FileTrouble('The file breaks off before its end (endsolid); fetch it again.');
    const numbers = [...text.matchAll(/vertex\s+(\S+)\s+(\S+)\s+(\S+)/g)].flatMap((m) => [
      Number(m[1]),
      Number(m[2]),
      Number(m[3]),
    ]);
    if (numbers.length % 9 !== 0)
      throw new FileTrouble('The last triangle of the file has fewer than three corners; export it again.');
    checkCounts(numbers.length / 3, numbers.length / 9);
    for (let i = 0; i < numbers.length; i += 9) triangle(numbers.slice(i, i + 9));
  }
  const mesh = soup.finish();
  const bounds = boundsOf(mesh.positions)!;
  return welded(mesh, 1e-6 * Math.max(...bounds.max.map((x, k) => x - bounds.min[k])));
}
