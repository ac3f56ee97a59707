import type { z } from 'zod';
import { shownJson } from '../declare/json-words';
import { widened } from '../declare/widen';
import { jsonTooLarge } from '../declare/json-shape';
import { migrations } from './migrations';
import { withoutMark } from './bundle';
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

/** Checks a parsed document after migrating older versions. */
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
      message:
        `The version of this piece is ${version === undefined ? 'missing' : shownJson(version, 60)}; it should be a whole ` +
        `number from 1 to ${PIECE_VERSION}.`,
      faults: [{ path: 'version', message: `Should be a whole number from 1 to ${PIECE_VERSION}.` }],
    };
  if (version > PIECE_VERSION)
    return {
      ok: false,
      reason: 'newer',
      message:
        `This piece was made by a newer Maypole (version ${version}; this one reads up to ${PIECE_VERSION}). ` +
        'Update Maypole to open it; until then it is kept as it is.',
      faults: [{ path: 'version', message: `${version} is newer than ${PIECE_VERSION}.` }],
    };
  let current: unknown = value;
  for (let v = version; v < PIECE_VERSION; v++) current = migrations[v](current);
  const parsed = pieceSchema.safeParse(current);
  if (parsed.success) return { ok: true, piece: widened<Piece>(parsed.data) };
  const faults = parsed.error.issues
    .slice(0, MOST_FAULTS)
    .map((issue) => ({ path: formatPath(issue.path).slice(0, 300), message: shortened(messageOf(issue)) }));
  const others = parsed.error.issues.length - 1;
  const more = others > 0 ? ` (and ${others} more)` : '';
  return {
    ok: false,
    reason: 'faulty',
    message: `At ${faults[0].path || 'the top'}: ${faults[0].message}${more}`,
    faults,
  };
}

/** Words for the user, with quotes from the document shortened. */
function shortened(words: string): string {
  return words.replace(/([“"])([^”"]{60})[^”"]*([”"])/g, '$1$2…$3').slice(0, 600);
}

/** Most faults reported for one piece. */
const MOST_FAULTS = 100;

/** Words for values of the wrong type. */
const CALLED: Readonly<Record<string, string>> = {
  object: 'a group of values',
  record: 'a group of values',
  array: 'a list',
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
};

/** What is wrong, in words for the user, without a list of everything allowed. */
function messageOf(issue: z.core.$ZodIssue): string {
  if (issue.code === 'unrecognized_keys') {
    const shown = issue.keys.slice(0, 3).map((key) => `“${key.slice(0, 40)}”`);
    const rest = issue.keys.length - shown.length;
    return `There is no value ${shown.join(', ')}${rest > 0 ? ` (nor ${rest} more)` : ''} here; take it away.`;
  }
  // A declaration's own message is better than anything here.
  if (!/^(Invalid|Too (big|small))/.test(issue.message)) return issue.message;
  const wanted = 'expected' in issue ? (CALLED[String(issue.expected)] ?? String(issue.expected)) : undefined;
  if (wanted) return `Here ${wanted} is missing, or something else stands in its place.`;
  if ('values' in issue) return `Should be ${issue.values.map((v) => `“${String(v)}”`).join(' or ')}.`;
  return 'What stands here is not understood.';
}

/** A larger document is no piece that anybody made. */
const LARGEST = { depth: 200, values: 2_000_000 };

/** Reads the text of a piece file. */
export function readPiece(text: string): ReadResult {
  const tooLarge = jsonTooLarge(text, LARGEST);
  if (tooLarge !== undefined) {
    const message = `This cannot be a piece: ${tooLarge}.`;
    return { ok: false, reason: 'not-a-piece', message, faults: [{ path: '', message }] };
  }
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
