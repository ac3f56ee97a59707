import { widened } from '../declare/widen';
import { migrations } from './migrations';
import { withoutMark } from './parcel';
import { PIECE_VERSION, type Piece } from './piece';
import { pieceSchema } from './schema';

/** A fault in a document: the path of the value, such as `ribbons[0].steps[1].values.height`. */
export interface PieceFault {
  readonly path: string;
  readonly message: string;
}

export type ReadResult =
  | { readonly ok: true; readonly piece: Piece }
  | {
      readonly ok: false;
      /** 'newer': a sound document that a later Maypole wrote. It must be kept untouched. */
      readonly reason: 'not-json' | 'not-a-piece' | 'newer' | 'faulty';
      readonly message: string;
      readonly faults: readonly PieceFault[];
    };

export function formatPath(path: readonly PropertyKey[]): string {
  return path.reduce<string>(
    (out, part) => (typeof part === 'number' ? `${out}[${part}]` : out ? `${out}.${String(part)}` : String(part)),
    '',
  );
}

/** Checks a parsed document, bringing older versions up to date first. */
export function readPieceValue(value: unknown): ReadResult {
  if (typeof value !== 'object' || value === null || (value as { maypole?: unknown }).maypole !== 'piece')
    return {
      ok: false,
      reason: 'not-a-piece',
      message: 'This is not a Maypole piece: “maypole”: “piece” is missing at the top.',
      faults: [{ path: 'maypole', message: 'Should be "piece".' }],
    };
  const version = (value as { version?: unknown }).version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return {
      ok: false,
      reason: 'faulty',
      message: `The version of this piece is ${JSON.stringify(version) ?? 'missing'}; it should be a whole number from 1 to ${PIECE_VERSION}.`,
      faults: [{ path: 'version', message: `Should be a whole number from 1 to ${PIECE_VERSION}.` }],
    };
  if (version > PIECE_VERSION)
    return {
      ok: false,
      reason: 'newer',
      message: `This piece was made by a newer Maypole (version ${version}; this one reads up to ${PIECE_VERSION}). Update Maypole to open it; until then it is kept as it is.`,
      faults: [{ path: 'version', message: `${version} is newer than ${PIECE_VERSION}.` }],
    };
  let current: unknown = value;
  for (let v = version; v < PIECE_VERSION; v++) current = migrations[v](current);
  const parsed = pieceSchema.safeParse(current);
  if (parsed.success) return { ok: true, piece: widened<Piece>(parsed.data) };
  const faults = parsed.error.issues.map((issue) => ({ path: formatPath(issue.path), message: issue.message }));
  const more = faults.length > 1 ? ` (and ${faults.length - 1} more)` : '';
  return {
    ok: false,
    reason: 'faulty',
    message: `At ${faults[0].path || 'the top'}: ${faults[0].message}${more}`,
    faults,
  };
}

/** Reads the text of a piece file. */
export function readPiece(text: string): ReadResult {
  let value: unknown;
  try {
    value = JSON.parse(withoutMark(text));
  } catch (error) {
    const message = `This is not JSON: ${error instanceof Error ? error.message : 'it cannot be parsed'}.`;
    return { ok: false, reason: 'not-json', message, faults: [{ path: '', message }] };
  }
  return readPieceValue(value);
}

/** The text of a piece file, as exported. */
export function writePiece(piece: Piece): string {
  return `${JSON.stringify(piece, null, 2)}\n`;
}
