export interface RoomUsed {
  /** Bytes of all that is kept, and the most they may be. */
  readonly bytes: number;
  readonly mostBytes: number;
  readonly pieces: number;
  readonly mostPieces: number;
  readonly binned: number;
  readonly revisions: number;
  readonly files: number;
  readonly fileBytes: number;
}
