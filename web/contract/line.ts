/**
 * Sequence number of a version that a page saves: versions of one page form a line, whether they arrive early, late,
 * twice or not at all.
 */
export interface Line {
  /** Random identifier of the page. */
  readonly client: string;
  /** Number of the version, from 1; resending keeps the number. */
  readonly count: number;
}
