import type { Mesh } from '../shape/mesh';
import { Soup } from './soup';
import { checkCounts, FileTrouble } from './trouble';

/** A shape in Wavefront's text format: points (v), places on the surface (vt) and faces (f); all objects of the file together. */
export function readObj(text: string): Mesh {
  const soup = new Soup();
  const places: number[] = [];
  let faces = 0;
  let number = 0;
  for (const raw of text.replace(/\\\r?\n/g, ' ').split(/\r?\n/)) {
    number++;
    const [word, ...rest] = raw.split('#')[0].trim().split(/\s+/);
    if (word === 'v') soup.point(Number(rest[0]), Number(rest[1]), Number(rest[2]));
    else if (word === 'vt') places.push(Number(rest[0]), Number(rest[1] ?? 0));
    else if (word === 'f') {
      checkCounts(soup.points, ++faces);
      const corners: number[] = [];
      const uv: number[] = [];
      for (const part of rest) {
        const [v, t] = part.split('/').map((x) => (x === '' ? NaN : Number(x)));
        if (!Number.isInteger(v) || v === 0)
          throw new FileTrouble(`Line ${number} has a face with the point “${part}”; points are counted from 1.`);
        // Numbers below 0 count back from the last one.
        corners.push(v > 0 ? v - 1 : soup.points + v);
        const at = t > 0 ? t - 1 : places.length / 2 + t;
        if (at >= 0 && at < places.length / 2) uv.push(places[2 * at], places[2 * at + 1]);
      }
      if (corners.length < 3)
        throw new FileTrouble(`Line ${number} has a face of ${corners.length} points; a face needs three or more.`);
      soup.face(corners, uv.length === 2 * corners.length ? uv : undefined);
    }
  }
  return soup.finish();
}
