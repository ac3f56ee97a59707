/**
 * A page numbers the versions of a piece that it sends: all of them are one line, whatever of it arrives first, late,
 * twice or not at all.
 */
export interface Line {
  /** The page, by a number that it gave itself. */
  readonly client: string;
  /** Which of its versions, counted from 1; the same version has the same number however often it is sent. */
  readonly count: number;
}
