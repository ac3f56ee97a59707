export interface RoomUsed {
  /** Bytes of everything stored, and the most allowed. */
  readonly bytes: number;
  readonly mostBytes: number;
  readonly pieces: number;
  readonly mostPieces: number;
  readonly binned: number;
  readonly revisions: number;
  readonly files: number;
  readonly fileBytes: number;
}
