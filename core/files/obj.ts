import type { Mesh } from '../shape/mesh';
import { Soup } from './soup';
import { checkCounts, FileTrouble, MOST_CORNERS, MOST_POINTS } from '../assets/trouble';
import { Words } from './words';

const numberOf = (text: string | undefined) => (text === undefined || text === '' ? NaN : Number(text));

/** Reads Wavefront OBJ: points (v), texture coordinates (vt) and faces (f); all objects of the file are merged. */
export function readObj(bytes: Uint8Array): Mesh {
  const soup = new Soup();
  const places: number[] = [];
  const words = new Words(bytes, true);
  let faces = 0;
  while (words.next()) {
    const { line } = words;
    const kind = words.word();
    if (kind === 'v') soup.point(words.number(), words.number(), words.number());
    else if (kind === 'vt') {
      if (places.length >= 8 * MOST_POINTS)
        throw new FileTrouble(`The file has more than ${4 * MOST_POINTS} places on its surface; decimate it first.`);
      places.push(words.number(), words.number() || 0);
    } else if (kind === 'f') {
      checkCounts(soup.points, ++faces);
      face(soup, places, words, line);
    }
  }
  return soup.finish();
}

function face(soup: Soup, places: readonly number[], words: Words, line: number): void {
  const corners: number[] = [];
  const uv: number[] = [];
  for (let part = words.word(); part !== ''; part = words.word()) {
    const slash = part.indexOf('/');
    const v = numberOf(slash < 0 ? part : part.slice(0, slash));
    const t = slash < 0 ? NaN : numberOf(part.slice(slash + 1).split('/', 1)[0]);
    if (!Number.isInteger(v) || v === 0)
      throw new FileTrouble(
        `Line ${line} has a face with the point “${part.slice(0, 40)}”; points are counted from 1.`,
      );
    if (corners.length >= MOST_CORNERS)
      throw new FileTrouble(
        `Line ${line} has a face of more than ${MOST_CORNERS} points; divide it, and export it again.`,
      );
    // Negative numbers count back from the last point.
    corners.push(v > 0 ? v - 1 : soup.points + v);
    const at = t > 0 ? t - 1 : places.length / 2 + t;
    if (at >= 0 && at < places.length / 2) uv.push(places[2 * at], places[2 * at + 1]);
  }
  if (corners.length < 3)
    throw new FileTrouble(`Line ${line} has a face of ${corners.length} points; a face needs three or more.`);
  soup.face(corners, uv.length === 2 * corners.length ? uv : undefined);
}
