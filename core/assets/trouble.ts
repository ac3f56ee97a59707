/** A file that cannot be read: what is wrong, and what helps. */
export class FileTrouble extends Error {
  override readonly name = 'FileTrouble';
}

/** Most faces and points of an imported shape. */
export const MOST_FACES = 1_000_000;
export const MOST_POINTS = 1_000_000;
/** Most corners of a face. */
export const MOST_CORNERS = 10_000;

/** Refuses implausible counts before anything of that size is allocated. */
export function checkCounts(points: number, faces: number): void {
  if (!Number.isInteger(points) || !Number.isInteger(faces) || points < 0 || faces < 0)
    throw new FileTrouble(`The file claims ${points} points and ${faces} faces, which cannot be; export it again.`);
  if (points > MOST_POINTS)
    throw new FileTrouble(`The file has ${points} points; the most is ${MOST_POINTS}. Decimate it before importing.`);
  if (faces > MOST_FACES)
    throw new FileTrouble(`The file has ${faces} faces; the most is ${MOST_FACES}. Decimate it before importing.`);
}
